/**
 * Cosine: a smooth swing between 1 and −1 that repeats every 2π.
 * @kind cosine 1
 * @family Numbers
 * @words cos, wave, swing, trigonometry
 * @source GLSL ES 3.00 specification, section 8.1
 * @inlet angle number "Angle" = 0: radians.
 * @outlet result number "Cosine": −1…1.
 */
float cosineOf(float angle) {
  return cos(angle);
}
vec2 cosineOf(vec2 angle) {
  return cos(angle);
}
vec3 cosineOf(vec3 angle) {
  return cos(angle);
}
vec4 cosineOf(vec4 angle) {
  return cos(angle);
}

/**
 * Tangent of angle: the slope of a line at an angle.
 * @kind tangentOfAngle 1
 * @family Numbers
 * @words tan, slope, trigonometry
 * @source GLSL ES 3.00 specification, section 8.1; held at a million where it has no value
 * @inlet angle number "Angle" = 0: radians.
 * @outlet result number "Slope"
 */
float slopeOf(float angle) {
  float down = cos(angle);
  return clamp(sin(angle) / (abs(down) < 1e-6 ? 1e-6 : down), -1.0e6, 1.0e6);
}

/**
 * Arcsine: the angle whose sine a value is.
 * @kind arcsine 1
 * @family Numbers
 * @words asin, inverse sine, trigonometry
 * @source GLSL ES 3.00 specification, section 8.1; the value is held between −1 and 1
 * @inlet value number "Value" = 0
 * @outlet result number "Angle": radians, −π/2…π/2.
 */
float angleOfSine(float value) {
  return asin(clamp(value, -1.0, 1.0));
}

/**
 * Arccosine: the angle whose cosine a value is.
 * @kind arccosine 1
 * @family Numbers
 * @words acos, inverse cosine, trigonometry
 * @source GLSL ES 3.00 specification, section 8.1; the value is held between −1 and 1
 * @inlet value number "Value" = 1
 * @outlet result number "Angle": radians, 0…π.
 */
float angleOfCosine(float value) {
  return acos(clamp(value, -1.0, 1.0));
}

/**
 * Arctangent: the angle of a point seen from the middle.
 * @kind arctangent 1
 * @family Numbers
 * @words atan, atan2, polar, angle, direction
 * @source GLSL ES 3.00 specification, section 8.1: atan(y, x); 0 in the middle
 * @inlet y number "Y" = 0
 * @inlet x number "X" = 1
 * @outlet result number "Angle": radians, −π…π.
 */
float angleOfPoint(float y, float x) {
  return x == 0.0 && y == 0.0 ? 0.0 : atan(y, x);
}

/**
 * To radians: an angle in degrees, in radians.
 * @kind toRadians 1
 * @family Numbers
 * @words degrees, angle, convert, pi
 * @source ISO 80000-3: x π / 180
 * @inlet degrees number "Degrees" = 0
 * @outlet result number "Radians"
 */
float radiansOf(float degrees) {
  return degrees * 0.01745329252;
}
vec2 radiansOf(vec2 degrees) {
  return degrees * 0.01745329252;
}
vec3 radiansOf(vec3 degrees) {
  return degrees * 0.01745329252;
}
vec4 radiansOf(vec4 degrees) {
  return degrees * 0.01745329252;
}

/**
 * To degrees: an angle in radians, in degrees.
 * @kind toDegrees 1
 * @family Numbers
 * @words radians, angle, convert, pi
 * @source ISO 80000-3: x 180 / π
 * @inlet radians number "Radians" = 0
 * @outlet result number "Degrees"
 */
float degreesOf(float radians) {
  return radians * 57.29577951;
}
vec2 degreesOf(vec2 radians) {
  return radians * 57.29577951;
}
vec3 degreesOf(vec3 radians) {
  return radians * 57.29577951;
}
vec4 degreesOf(vec4 radians) {
  return radians * 57.29577951;
}
