/**
 * Absolute: the value without its sign.
 * @kind absolute 1
 * @family Numbers
 * @words abs, magnitude, positive
 * @source GLSL ES 3.00 specification, section 8.3: |x|
 * @inlet value number "Value" = 0
 * @outlet result number "Absolute": never below 0.
 */
float absoluteOf(float value) {
  return abs(value);
}
vec2 absoluteOf(vec2 value) {
  return abs(value);
}
vec3 absoluteOf(vec3 value) {
  return abs(value);
}
vec4 absoluteOf(vec4 value) {
  return abs(value);
}

/**
 * Sign: 1 above zero, −1 below it, 0 at zero.
 * @kind sign 1
 * @family Numbers
 * @words direction, positive or negative
 * @source GLSL ES 3.00 specification, section 8.3
 * @inlet value number "Value" = 0
 * @outlet result number "Sign": −1, 0 or 1.
 */
float signOf(float value) {
  return sign(value);
}
vec2 signOf(vec2 value) {
  return sign(value);
}
vec3 signOf(vec3 value) {
  return sign(value);
}
vec4 signOf(vec4 value) {
  return sign(value);
}

/**
 * Floor: the next whole number downwards.
 * @kind floor 1
 * @family Numbers
 * @words round down, integer part, truncate
 * @source GLSL ES 3.00 specification, section 8.3
 * @inlet value number "Value" = 0
 * @outlet result number "Whole"
 */
float floorOf(float value) {
  return floor(value);
}
vec2 floorOf(vec2 value) {
  return floor(value);
}
vec3 floorOf(vec3 value) {
  return floor(value);
}
vec4 floorOf(vec4 value) {
  return floor(value);
}

/**
 * Ceil: the next whole number upwards.
 * @kind ceil 1
 * @family Numbers
 * @words ceiling, round up
 * @source GLSL ES 3.00 specification, section 8.3
 * @inlet value number "Value" = 0
 * @outlet result number "Whole"
 */
float ceilOf(float value) {
  return ceil(value);
}
vec2 ceilOf(vec2 value) {
  return ceil(value);
}
vec3 ceilOf(vec3 value) {
  return ceil(value);
}
vec4 ceilOf(vec4 value) {
  return ceil(value);
}

/**
 * Round: the nearest whole number; halves go up.
 * @kind round 1
 * @family Numbers
 * @words nearest, integer
 * @source floor(x + 1/2)
 * @inlet value number "Value" = 0
 * @outlet result number "Whole"
 */
float roundOf(float value) {
  return floor(value + 0.5);
}
vec2 roundOf(vec2 value) {
  return floor(value + 0.5);
}
vec3 roundOf(vec3 value) {
  return floor(value + 0.5);
}
vec4 roundOf(vec4 value) {
  return floor(value + 0.5);
}

/**
 * Fract: what is left of a value above the next whole number below it.
 * @kind fract 1
 * @family Numbers
 * @words fraction, fractional part, decimals
 * @source GLSL ES 3.00 specification, section 8.3: x − floor(x)
 * @inlet value number "Value" = 0
 * @outlet result fraction "Fraction": 0…1.
 */
float fractOf(float value) {
  return value - floor(value);
}
vec2 fractOf(vec2 value) {
  return value - floor(value);
}
vec3 fractOf(vec3 value) {
  return value - floor(value);
}
vec4 fractOf(vec4 value) {
  return value - floor(value);
}

/**
 * Quantise: steps of one size instead of a smooth value.
 * @kind quantise 1
 * @family Numbers
 * @words steps, snap, posterise, grid, increments
 * @source step × floor(x / step); the value itself where the step is 0
 * @inlet value number "Value" = 0.5
 * @inlet size number "Step" = 0.25: the size of one step.
 * @outlet result number "Stepped"
 */
float quantised(float value, float size) {
  return abs(size) < 1e-12 ? value : floor(value / size) * size;
}
vec2 quantised(vec2 value, float size) {
  return abs(size) < 1e-12 ? value : floor(value / size) * size;
}
vec3 quantised(vec3 value, float size) {
  return abs(size) < 1e-12 ? value : floor(value / size) * size;
}
vec4 quantised(vec4 value, float size) {
  return abs(size) < 1e-12 ? value : floor(value / size) * size;
}
