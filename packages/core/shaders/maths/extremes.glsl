/**
 * Minimum: the smaller of two values.
 * @kind minimum 1
 * @family Numbers
 * @words min, lower, darken, intersection
 * @source GLSL ES 3.00 specification, section 8.3
 * @inlet a number "A" = 0
 * @inlet b number "B" = 0
 * @outlet result number "Smaller"
 */
float smallerOf(float a, float b) {
  return min(a, b);
}
vec2 smallerOf(vec2 a, vec2 b) {
  return min(a, b);
}
vec3 smallerOf(vec3 a, vec3 b) {
  return min(a, b);
}
vec4 smallerOf(vec4 a, vec4 b) {
  return min(a, b);
}

/**
 * Maximum: the larger of two values.
 * @kind maximum 1
 * @family Numbers
 * @words max, higher, lighten, union
 * @source GLSL ES 3.00 specification, section 8.3
 * @inlet a number "A" = 0
 * @inlet b number "B" = 0
 * @outlet result number "Larger"
 */
float largerOf(float a, float b) {
  return max(a, b);
}
vec2 largerOf(vec2 a, vec2 b) {
  return max(a, b);
}
vec3 largerOf(vec3 a, vec3 b) {
  return max(a, b);
}
vec4 largerOf(vec4 a, vec4 b) {
  return max(a, b);
}

// How far a rounded corner lies below the sharp one, for values this far apart.
float roundedBy(float apart, float width) {
  float h = max(width - abs(apart), 0.0);
  return width < 1e-6 ? 0.0 : h * h * 0.25 / width;
}

/**
 * Soft minimum: the smaller of two values, without a corner where they meet.
 * @kind softMinimum 1
 * @family Numbers
 * @words smooth min, blend, melt
 * @source Polynomial smooth minimum: Quilez 2013, "Smooth minimum", quadratic form
 * @inlet a number "A" = 0
 * @inlet b number "B" = 0
 * @inlet width number "Width" = 0.1 in 0..1: how far apart values begin to melt.
 * @outlet result number "Smaller"
 */
float softMinimum(float a, float b, float width) {
  return min(a, b) - roundedBy(a - b, width);
}

/**
 * Soft maximum: the larger of two values, without a corner where they meet.
 * @kind softMaximum 1
 * @family Numbers
 * @words smooth max, blend, melt
 * @source Polynomial smooth minimum: Quilez 2013, "Smooth minimum", quadratic form, mirrored
 * @inlet a number "A" = 0
 * @inlet b number "B" = 0
 * @inlet width number "Width" = 0.1 in 0..1: how far apart values begin to melt.
 * @outlet result number "Larger"
 */
float softMaximum(float a, float b, float width) {
  return max(a, b) + roundedBy(a - b, width);
}
