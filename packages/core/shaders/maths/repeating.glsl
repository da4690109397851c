/**
 * Modulo: what is left of a value after whole multiples of another.
 * @kind modulo 1
 * @family Numbers
 * @words mod, modulus, remainder, rest, wrap, repeat
 * @source GLSL ES 3.00 specification, section 8.3: x − y floor(x / y); 0 where y is 0
 * @inlet a number "Value" = 0
 * @inlet b number "Divisor" = 1
 * @outlet result number "Remainder"
 */
float moduloOf(float a, float b) {
  return abs(b) < 1e-12 ? 0.0 : a - b * floor(a / b);
}
vec2 moduloOf(vec2 a, vec2 b) {
  return vec2(moduloOf(a.x, b.x), moduloOf(a.y, b.y));
}
vec3 moduloOf(vec3 a, vec3 b) {
  return vec3(moduloOf(a.x, b.x), moduloOf(a.y, b.y), moduloOf(a.z, b.z));
}

/**
 * Repeat in range: wraps a value round between two limits.
 * @kind repeat 1
 * @family Numbers
 * @words wrap, cycle, loop, range
 * @source low + (x − low) modulo (high − low)
 * @inlet value number "Value" = 0
 * @inlet low number "Low" = 0
 * @inlet high number "High" = 1
 * @outlet result number "Repeated": from the lowest on, below the highest.
 */
float repeatBetween(float value, float low, float high) {
  return low + moduloOf(value - low, high - low);
}

/**
 * Triangle wave: rises from 0 to 1 and falls back, with corners, once a period.
 * @kind triangleWave 1
 * @family Numbers
 * @words zigzag, ping pong, back and forth, mirror
 * @source 1 − |2 fract(x / period) − 1|; 0 where the period is 0
 * @inlet value number "Value" = 0
 * @inlet period number "Period" = 1
 * @outlet result fraction "Wave": 0…1.
 */
float triangleWave(float value, float period) {
  float turns = abs(period) < 1e-12 ? 0.0 : value / period;
  return 1.0 - abs(2.0 * (turns - floor(turns)) - 1.0);
}
