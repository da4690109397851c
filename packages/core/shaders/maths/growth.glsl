/**
 * Square root: the number whose square a value is; of what is below zero, 0.
 * @kind squareRoot 1
 * @family Numbers
 * @words sqrt, root
 * @source GLSL ES 3.00 specification, section 8.2: √max(x, 0)
 * @inlet value number "Value" = 1
 * @outlet result number "Root": never below 0.
 */
float squareRootOf(float value) {
  return sqrt(max(value, float(0.0)));
}
vec2 squareRootOf(vec2 value) {
  return sqrt(max(value, vec2(0.0)));
}
vec3 squareRootOf(vec3 value) {
  return sqrt(max(value, vec3(0.0)));
}
vec4 squareRootOf(vec4 value) {
  return sqrt(max(value, vec4(0.0)));
}

/**
 * Exponential: e raised to a value: growth that feeds itself.
 * @kind exponential 1
 * @family Numbers
 * @words exp, growth, e
 * @source GLSL ES 3.00 specification, section 8.2; the value is held at 80, where a 32-bit float ends
 * @inlet value number "Value" = 0
 * @outlet result number "Exponential": above 0.
 */
float exponentialOf(float value) {
  return exp(clamp(value, float(-80.0), float(80.0)));
}
vec2 exponentialOf(vec2 value) {
  return exp(clamp(value, vec2(-80.0), vec2(80.0)));
}
vec3 exponentialOf(vec3 value) {
  return exp(clamp(value, vec3(-80.0), vec3(80.0)));
}
vec4 exponentialOf(vec4 value) {
  return exp(clamp(value, vec4(-80.0), vec4(80.0)));
}

/**
 * Logarithm: how often e has to be multiplied by itself to give a value.
 * @kind logarithm 1
 * @family Numbers
 * @words log, ln, natural
 * @source GLSL ES 3.00 specification, section 8.2; values at or below 0 count as the smallest above it
 * @inlet value number "Value" = 1
 * @outlet result number "Logarithm"
 */
float logarithmOf(float value) {
  return log(max(value, float(1e-30)));
}
vec2 logarithmOf(vec2 value) {
  return log(max(value, vec2(1e-30)));
}
vec3 logarithmOf(vec3 value) {
  return log(max(value, vec3(1e-30)));
}
vec4 logarithmOf(vec4 value) {
  return log(max(value, vec4(1e-30)));
}
