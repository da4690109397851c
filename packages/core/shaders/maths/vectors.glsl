// A vector of length 0 stays 0 instead of becoming not a number.
vec3 safeNormalize(vec3 v) {
  return v * inversesqrt(max(dot(v, v), 1e-20));
}

struct Components {
  float x;
  float y;
  float z;
  float w;
};

/**
 * Split: the components of a vector or colour one by one; those it does not have are 0.
 * @kind split 1
 * @family Vectors
 * @words separate, xyz, components, channels, rgb, swizzle
 * @source Components in order
 * @inlet value vector "Vector" = 0 0 0
 * @outlet x number "X or red"
 * @outlet y number "Y or green"
 * @outlet z number "Z or blue"
 * @outlet w number "W or alpha"
 */
Components splitVector(vec2 value) {
  return Components(value.x, value.y, 0.0, 0.0);
}
Components splitVector(vec3 value) {
  return Components(value.x, value.y, value.z, 0.0);
}
Components splitVector(vec4 value) {
  return Components(value.x, value.y, value.z, value.w);
}

/**
 * Combine: a vector out of three numbers.
 * @kind combine 1
 * @family Vectors
 * @words xyz, make vector, join, compose, rgb
 * @source Components in order
 * @inlet x number "X or red" = 0
 * @inlet y number "Y or green" = 0
 * @inlet z number "Z or blue" = 0
 * @outlet result vector "Vector"
 */
vec3 combineVector(float x, float y, float z) {
  return vec3(x, y, z);
}

/**
 * Dot: the cosine of the angle between unit vectors: 1 in the same direction, 0 perpendicular, −1 opposite.
 * @kind dot 1
 * @family Vectors
 * @words cosine, projection, scalar product, angle
 * @source GLSL ES 3.00 specification, section 8.4
 * @inlet a vector "A" = 0 1 0
 * @inlet b vector "B" = 0 1 0
 * @outlet result number "Dot"
 */
float dotOf(vec3 a, vec3 b) {
  return dot(a, b);
}
float dotOf(vec2 a, vec2 b) {
  return dot(a, b);
}

/**
 * Normalize: the same direction at length 1; a vector of length 0 stays 0.
 * @kind normalize 1
 * @family Vectors
 * @words unit, direction, length one
 * @source GLSL ES 3.00 specification, section 8.4; 0 where the length is 0
 * @inlet value vector "Vector" = 0 1 0
 * @outlet result vector "Direction"
 */
vec3 normalizeVector(vec3 value) {
  return safeNormalize(value);
}

/**
 * Length: how long a vector is.
 * @kind length 1
 * @family Vectors
 * @words magnitude, distance, norm
 * @source GLSL ES 3.00 specification, section 8.4
 * @inlet value vector "Vector" = 0 0 0
 * @outlet result number "Length"
 */
float lengthOf(vec3 value) {
  return length(value);
}
float lengthOf(vec2 value) {
  return length(value);
}
