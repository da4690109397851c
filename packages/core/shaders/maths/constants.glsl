/**
 * Number: one number, typed by you.
 * @kind number 1
 * @family Numbers
 * @words value, constant, float, scalar, int, integer, literal
 * @source The number itself
 * @inlet value number "Number" = 1
 * @outlet result number "Number"
 */
float numberOf(float value) {
  return value;
}

/**
 * Vector: one vector, typed by you.
 * @kind vector 1
 * @family Vectors
 * @words xyz, vec3, float3, constant, direction, value
 * @source The vector itself
 * @inlet value vector "Vector" = 0 1 0
 * @outlet result vector "Vector"
 */
vec3 vectorOf(vec3 value) {
  return value;
}

/**
 * Boolean: a switch, 1 when it is on, 0 when it is off.
 * @kind onOff 1
 * @family Numbers
 * @words boolean, bool, true, false, toggle, switch, checkbox, flag, yes, no, on or off
 * @source 1 where it is on, 0 where it is off
 * @inlet state choice "State" = 1 of off|on
 * @outlet result fraction "Number"
 */
float stateOf(float state) {
  return clamp(state, 0.0, 1.0);
}
