/**
 * Compare: 1 where one value is above another, 0 where it is not, with a soft border if wanted.
 * @kind compare 1
 * @family Numbers
 * @words greater than, threshold, less than, if, above
 * @source x > y, rising linearly over the softness
 * @inlet value number "Value" = 0.5
 * @inlet border number "Threshold" = 0.5
 * @inlet softness number "Softness" = 0 in 0..1: how wide the change is.
 * @outlet result fraction "Above": 0…1.
 */
float aboveOf(float value, float border, float softness) {
  float width = max(softness, 1e-6);
  return clamp((value - border) / width + 0.5, 0.0, 1.0);
}

/**
 * Choose: one of two values, by a condition.
 * @kind choose 1
 * @family Numbers
 * @words if, switch, select, condition, branch
 * @source the second value where the condition is above 1/2
 * @inlet condition fraction "Condition" = 0 in 0..1: above a half the second is taken.
 * @inlet a number "Below" = 0
 * @inlet b number "Above" = 1
 * @outlet result number "Chosen"
 */
float chosenOf(float condition, float a, float b) {
  return condition > 0.5 ? b : a;
}
vec2 chosenOf(float condition, vec2 a, vec2 b) {
  return condition > 0.5 ? b : a;
}
vec3 chosenOf(float condition, vec3 a, vec3 b) {
  return condition > 0.5 ? b : a;
}
vec4 chosenOf(float condition, vec4 a, vec4 b) {
  return condition > 0.5 ? b : a;
}
