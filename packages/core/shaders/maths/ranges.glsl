/**
 * Mix: from A to B as the amount goes from 0 to 1.
 * @kind mix 1
 * @family Numbers
 * @words lerp, blend, interpolate, linear interpolation, average, crossfade
 * @source GLSL ES 3.00 specification, section 8.3: a (1 − t) + b t
 * @inlet a number "A" = 0
 * @inlet b number "B" = 1
 * @inlet amount fraction "Amount" = 0.5 in 0..1
 * @outlet result number "Mixed"
 */
float mixValues(float a, float b, float amount) {
  return mix(a, b, amount);
}
vec2 mixValues(vec2 a, vec2 b, float amount) {
  return mix(a, b, amount);
}
vec3 mixValues(vec3 a, vec3 b, float amount) {
  return mix(a, b, amount);
}
vec4 mixValues(vec4 a, vec4 b, float amount) {
  return mix(a, b, amount);
}

/**
 * Step: 0 below the edge, 1 from the edge on.
 * @kind step 1
 * @family Numbers
 * @words threshold, hard edge, hard, cut, greater
 * @source GLSL ES 3.00 specification, section 8.3
 * @inlet edge number "Edge" = 0.5
 * @inlet value number "Value" = 0
 * @outlet result number "Step": 0 or 1.
 */
float stepAt(float edge, float value) {
  return step(edge, value);
}
vec2 stepAt(vec2 edge, vec2 value) {
  return step(edge, value);
}
vec3 stepAt(vec3 edge, vec3 value) {
  return step(edge, value);
}
vec4 stepAt(vec4 edge, vec4 value) {
  return step(edge, value);
}

/**
 * Smoothstep: rises from 0 to 1 between two edges, without a corner.
 * @kind smoothstep 1
 * @family Numbers
 * @words soft, threshold, ease, hermite, smooth step
 * @source GLSL ES 3.00 specification, section 8.3: 3t² − 2t³; where the edges meet, a hard step
 * @inlet low number "Low" = 0
 * @inlet high number "High" = 1
 * @inlet value number "Value" = 0.5
 * @outlet result fraction "Step": 0…1.
 */
float smoothStepBetween(float low, float high, float value) {
  float t = abs(high - low) < 1e-12 ? step(low, value) : clamp((value - low) / (high - low), 0.0, 1.0);
  return t * t * (3.0 - 2.0 * t);
}

/**
 * Clamp: keeps a value between two limits.
 * @kind clamp 1
 * @family Numbers
 * @words limit, clip, saturate, restrict
 * @source GLSL ES 3.00 specification, section 8.3: min(max(x, low), high)
 * @inlet value number "Value" = 0
 * @inlet low number "Low" = 0
 * @inlet high number "High" = 1
 * @outlet result number "Clamped"
 */
float clampValue(float value, float low, float high) {
  return min(max(value, low), high);
}
vec2 clampValue(vec2 value, vec2 low, vec2 high) {
  return min(max(value, low), high);
}
vec3 clampValue(vec3 value, vec3 low, vec3 high) {
  return min(max(value, low), high);
}
vec4 clampValue(vec4 value, vec4 low, vec4 high) {
  return min(max(value, low), high);
}

/**
 * Remap: maps a value from one range to another, also beyond both ends.
 * @kind remap 1
 * @family Numbers
 * @words range, map, rescale, fit, normalise
 * @source Linear map that takes inLow to outLow and inHigh to outHigh; outLow where the first range is empty
 * @inlet value number "Value" = 0.5
 * @inlet inLow number "In low" = 0
 * @inlet inHigh number "In high" = 1
 * @inlet outLow number "Out low" = 0
 * @inlet outHigh number "Out high" = 1
 * @outlet result number "Remapped"
 */
float remapValue(float value, float inLow, float inHigh, float outLow, float outHigh) {
  return outLow + divideSafely(value - inLow, inHigh - inLow) * (outHigh - outLow);
}
vec2 remapValue(vec2 value, float inLow, float inHigh, float outLow, float outHigh) {
  return vec2(outLow) + divideValues(value - inLow, vec2(inHigh - inLow)) * (outHigh - outLow);
}
vec3 remapValue(vec3 value, float inLow, float inHigh, float outLow, float outHigh) {
  return vec3(outLow) + divideValues(value - inLow, vec3(inHigh - inLow)) * (outHigh - outLow);
}

/**
 * Remap with curve: maps a value from one range to another, clamped at both ends, along a curve in between.
 * @kind remapCurve 1
 * @family Numbers
 * @words range, map, ease, bias, gamma, shape, falloff
 * @source Schlick 1994, "Fast alternatives to Perlin’s bias and gain functions", Graphics Gems IV: bias t / ((1/b − 2)(1 − t) + 1)
 * @inlet value number "Value" = 0.5
 * @inlet inLow number "In low" = 0
 * @inlet inHigh number "In high" = 1
 * @inlet outLow number "Out low" = 0
 * @inlet outHigh number "Out high" = 1
 * @inlet curve fraction "Curve" = 0.5 in 0..1: 0.5 is straight; above, it rises early, below, late.
 * @outlet result number "Remapped"
 */
float remapCurve(float value, float inLow, float inHigh, float outLow, float outHigh, float curve) {
  float t = clamp(divideSafely(value - inLow, inHigh - inLow), 0.0, 1.0);
  float bias = clamp(curve, 0.001, 0.999);
  return outLow + t / ((1.0 / bias - 2.0) * (1.0 - t) + 1.0) * (outHigh - outLow);
}
