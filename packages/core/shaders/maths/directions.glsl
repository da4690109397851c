/**
 * Cross: the direction perpendicular to two others; as long as the area between them.
 * @kind cross 1
 * @family Vectors
 * @words perpendicular, cross product, normal of plane
 * @source GLSL ES 3.00 specification, section 8.5
 * @inlet a vector "A" = 1 0 0
 * @inlet b vector "B" = 0 1 0
 * @outlet result vector "Cross"
 */
vec3 crossOf(vec3 a, vec3 b) {
  return cross(a, b);
}

/**
 * Distance: how far apart two points are.
 * @kind distance 1
 * @family Vectors
 * @words length, metres, far, near
 * @source GLSL ES 3.00 specification, section 8.5: |a − b|
 * @inlet a vector "A" = 0 0 0
 * @inlet b vector "B" = 0 0 0
 * @outlet result number "Distance": never below 0.
 */
float distanceOf(vec3 a, vec3 b) {
  return min(length(clamp(a - b, vec3(-1.0e18), vec3(1.0e18))), 1.0e19);
}
float distanceOf(vec2 a, vec2 b) {
  return min(length(clamp(a - b, vec2(-1.0e18), vec2(1.0e18))), 1.0e19);
}

/**
 * Reflect: where a direction goes when it meets a mirror.
 * @kind reflect 1
 * @family Vectors
 * @words reflection, mirror, bounce
 * @source GLSL ES 3.00 specification, section 8.5: i − 2 (n · i) n
 * @inlet direction vector "Direction" = 0 -1 0: the way it travels.
 * @inlet normal normal "Normal" = surface normal
 * @outlet result vector "Reflected"
 */
vec3 reflectedOf(vec3 direction, vec3 normal) {
  vec3 n = safeNormalize(normal);
  return direction - n * (2.0 * dot(n, direction));
}

/**
 * Refract: where a direction goes when it enters glass or water; 0 at total internal reflection.
 * @kind refract 1
 * @family Vectors
 * @words bend, snell, glass, water, ior
 * @source GLSL ES 3.00 specification, section 8.5 (law of Snellius)
 * @inlet direction vector "Direction" = 0 -1 0: the way it travels.
 * @inlet normal normal "Normal" = surface normal
 * @inlet ior number "Index of refraction" = 1.5 in 1..3: of what it enters.
 * @outlet result vector "Refracted": unit length, or 0 where all is mirrored.
 */
vec3 refractedOf(vec3 direction, vec3 normal, float ior) {
  return refract(safeNormalize(direction), safeNormalize(normal), 1.0 / max(ior, 1e-3));
}

/**
 * Rotate about axis: turns a direction or point round an axis through the middle.
 * @kind rotateAbout 1
 * @family Vectors
 * @words turn, spin, rotation, axis, angle
 * @source Rodrigues 1840: v cos a + (k × v) sin a + k (k · v)(1 − cos a)
 * @inlet value vector "Vector" = 1 0 0
 * @inlet axis vector "Axis" = 0 1 0
 * @inlet angle number "Angle" = 0: radians, counter-clockwise seen from where the axis points to.
 * @outlet result vector "Rotated"
 */
vec3 rotatedAbout(vec3 value, vec3 axis, float angle) {
  vec3 k = safeNormalize(axis);
  float c = cos(angle);
  return value * c + cross(k, value) * sin(angle) + k * (dot(k, value) * (1.0 - c));
}

/**
 * Angle between: the angle between two directions.
 * @kind angleBetween 1
 * @family Vectors
 * @words degrees, radians, deviation
 * @source acos of the cosine between unit vectors
 * @inlet a vector "A" = 0 1 0
 * @inlet b vector "B" = 0 1 0
 * @outlet result number "Angle": radians, 0…π; a quarter turn where one has no direction.
 */
float angleBetween(vec3 a, vec3 b) {
  return acos(clamp(dot(safeNormalize(a), safeNormalize(b)), -1.0, 1.0));
}

/**
 * Project: the part of a vector that goes along another.
 * @kind project 1
 * @family Vectors
 * @words along, shadow, component
 * @source k (k · v) for the unit vector k
 * @inlet value vector "Vector" = 1 0 0
 * @inlet along vector "Along" = 0 1 0
 * @outlet result vector "Projected"
 */
vec3 projectedOn(vec3 value, vec3 along) {
  vec3 k = safeNormalize(along);
  return k * dot(k, value);
}

/**
 * Reorder: puts the components of a vector in another order, or takes one several times.
 * @kind reorder 1
 * @family Vectors
 * @words swizzle, swap, xyz, shuffle, channels
 * @source GLSL ES 3.00 specification, section 5.5 (vector components)
 * @inlet value vector "Value" = 0 0 0
 * @inlet first choice "First" = 0 of x|y|z|0|1
 * @inlet second choice "Second" = 1 of x|y|z|0|1
 * @inlet third choice "Third" = 2 of x|y|z|0|1
 * @outlet result vector "Reordered"
 */
vec3 reordered(vec3 value, float first, float second, float third) {
  return vec3(partNumbered(value, first), partNumbered(value, second), partNumbered(value, third));
}

// A part of a vector by its number; beyond them 0 and 1.
float partNumbered(vec3 value, float number) {
  return number < 0.5 ? value.x : number < 1.5 ? value.y : number < 2.5 ? value.z : number < 3.5 ? 0.0 : 1.0;
}
