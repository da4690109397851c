/**
 * Add: the sum of two values. Two lights add up to both.
 * @kind add 1
 * @family Numbers
 * @words plus, sum, total, +
 * @source a + b, component by component
 * @inlet a number "A" = 0
 * @inlet b number "B" = 0
 * @outlet result number "Sum"
 */
float addValues(float a, float b) {
  return a + b;
}
vec2 addValues(vec2 a, vec2 b) {
  return a + b;
}
vec3 addValues(vec3 a, vec3 b) {
  return a + b;
}
vec4 addValues(vec4 a, vec4 b) {
  return a + b;
}

/**
 * Subtract: the first value less the second.
 * @kind subtract 1
 * @family Numbers
 * @words minus, difference, -
 * @source a − b, component by component
 * @inlet a number "A" = 0
 * @inlet b number "B" = 0
 * @outlet result number "Difference"
 */
float subtractValues(float a, float b) {
  return a - b;
}
vec2 subtractValues(vec2 a, vec2 b) {
  return a - b;
}
vec3 subtractValues(vec3 a, vec3 b) {
  return a - b;
}
vec4 subtractValues(vec4 a, vec4 b) {
  return a - b;
}

/**
 * Multiply: the product of two values. Tints a colour, dims a light.
 * @kind multiply 1
 * @family Numbers
 * @words times, product, scale, tint, *
 * @source a × b, component by component
 * @inlet a number "A" = 1
 * @inlet b number "B" = 1
 * @outlet result number "Product"
 */
float multiplyValues(float a, float b) {
  return a * b;
}
vec2 multiplyValues(vec2 a, vec2 b) {
  return a * b;
}
vec3 multiplyValues(vec3 a, vec3 b) {
  return a * b;
}
vec4 multiplyValues(vec4 a, vec4 b) {
  return a * b;
}

// 0 where b is 0; the sign of b is kept.
float divideSafely(float a, float b) {
  return abs(b) < 1e-20 ? 0.0 : a / b;
}

/**
 * Divide: the first value over the second; 0 where the second is 0.
 * @kind divide 1
 * @family Numbers
 * @words over, quotient, ratio, reciprocal, inverse, /
 * @source a ÷ b, component by component; 0 for division by 0
 * @inlet a number "A" = 1
 * @inlet b number "B" = 1
 * @outlet result number "Quotient"
 */
float divideValues(float a, float b) {
  return divideSafely(a, b);
}
vec2 divideValues(vec2 a, vec2 b) {
  return vec2(divideSafely(a.x, b.x), divideSafely(a.y, b.y));
}
vec3 divideValues(vec3 a, vec3 b) {
  return vec3(divideSafely(a.x, b.x), divideSafely(a.y, b.y), divideSafely(a.z, b.z));
}
vec4 divideValues(vec4 a, vec4 b) {
  return vec4(divideSafely(a.x, b.x), divideSafely(a.y, b.y), divideSafely(a.z, b.z), divideSafely(a.w, b.w));
}

/**
 * Power: the value raised to an exponent. Below 0 the value counts as 0.
 * @kind power 1
 * @family Numbers
 * @words exponent, gamma, pow, raise, falloff, ^
 * @source max(a, 0) to the b; 0 to the 0 is 1
 * @inlet a number "Value" = 1
 * @inlet b number "Exponent" = 2
 * @outlet result number "Power"
 */
float powerOf(float a, float b) {
  return b == 0.0 ? 1.0 : min(pow(max(a, 1e-20), b), 3.0e38) * (a > 0.0 ? 1.0 : 0.0);
}
vec2 powerOf(vec2 a, vec2 b) {
  return vec2(powerOf(a.x, b.x), powerOf(a.y, b.y));
}
vec3 powerOf(vec3 a, vec3 b) {
  return vec3(powerOf(a.x, b.x), powerOf(a.y, b.y), powerOf(a.z, b.z));
}
vec4 powerOf(vec4 a, vec4 b) {
  return vec4(powerOf(a.x, b.x), powerOf(a.y, b.y), powerOf(a.z, b.z), powerOf(a.w, b.w));
}

/**
 * Sine: a smooth swing between −1 and 1 that repeats every 2π.
 * @kind sine 1
 * @family Numbers
 * @words sin, wave, oscillate, swing, trigonometry
 * @source GLSL ES 3.00 specification, section 8.1
 * @inlet a number "Angle" = 0 unit radians
 * @outlet result number "Sine": −1…1.
 */
float sineOf(float a) {
  return sin(a);
}
vec2 sineOf(vec2 a) {
  return sin(a);
}
vec3 sineOf(vec3 a) {
  return sin(a);
}
vec4 sineOf(vec4 a) {
  return sin(a);
}

/**
 * Power, sign kept: raises the size of a value to a power, and leaves its sign.
 * @kind signedPower 1
 * @family Numbers
 * @words exponent, pow, curve, gamma, negative, symmetric
 * @source sign(x) |x|ʸ; 0 where x is 0
 * @inlet a number "Value" = 0.5
 * @inlet b number "Power" = 2 in 0..8
 * @outlet result number "Result"
 */
float signedPower(float a, float b) {
  return sign(a) * powerOf(abs(a), b);
}

/**
 * One minus: what is missing to 1; turns a mask round.
 * @kind oneMinus 1
 * @family Numbers
 * @words 1-x, 1 - x, complement, invert, inverse, flip mask
 * @source 1 − x, component by component
 * @inlet value number "Value" = 0
 * @outlet result number "Result"
 */
float oneMinus(float value) {
  return 1.0 - value;
}
vec2 oneMinus(vec2 value) {
  return vec2(1.0) - value;
}
vec3 oneMinus(vec3 value) {
  return vec3(1.0) - value;
}
vec4 oneMinus(vec4 value) {
  return vec4(1.0) - value;
}

/**
 * Negate: the same value with the other sign; a direction the other way.
 * @kind negate 1
 * @family Numbers
 * @words minus, opposite, negative, flip, other way, sign, -x
 * @source −x, component by component
 * @inlet value number "Value" = 1
 * @outlet result number "Negated"
 */
float negated(float value) {
  return -value;
}
vec2 negated(vec2 value) {
  return -value;
}
vec3 negated(vec3 value) {
  return -value;
}
vec4 negated(vec4 value) {
  return -value;
}
