// What one channel of the upper colour does to one of the lower, by the mode's number.
float blendedChannel(float lower, float upper, float mode) {
  if (mode < 0.5) {
    return upper;
  }
  if (mode < 1.5) {
    return lower * upper;
  }
  if (mode < 2.5) {
    return lower + upper - lower * upper;
  }
  if (mode < 3.5) {
    return lower <= 0.5 ? 2.0 * lower * upper : 1.0 - 2.0 * (1.0 - lower) * (1.0 - upper);
  }
  if (mode < 4.5) {
    return min(lower, upper);
  }
  if (mode < 5.5) {
    return max(lower, upper);
  }
  if (mode < 6.5) {
    return lower <= 0.0 ? 0.0 : upper >= 1.0 ? 1.0 : min(1.0, lower / (1.0 - upper));
  }
  if (mode < 7.5) {
    return lower >= 1.0 ? 1.0 : upper <= 0.0 ? 0.0 : 1.0 - min(1.0, (1.0 - lower) / upper);
  }
  if (mode < 8.5) {
    return upper <= 0.5 ? 2.0 * lower * upper : 1.0 - 2.0 * (1.0 - lower) * (1.0 - upper);
  }
  if (mode < 9.5) {
    float held = clamp(lower, 0.0, 1.0);
    float curve = held <= 0.25 ? ((16.0 * held - 12.0) * held + 4.0) * held : sqrt(held);
    return upper <= 0.5 ? lower - (1.0 - 2.0 * upper) * lower * (1.0 - lower) : lower + (2.0 * upper - 1.0) * (curve - held);
  }
  if (mode < 10.5) {
    return abs(lower - upper);
  }
  return lower + upper;
}

/**
 * Blend: lays one colour over another, in one of twelve blend modes.
 * @kind blend 1
 * @family Colour
 * @words blend mode, layer, over, multiply, screen, overlay, darken, lighten, dodge, burn, hard light, soft light, difference, add
 * @source W3C Compositing and Blending Level 1, section 10.1 (separable blend modes); plus: section 9.1.13
 * @inlet lower colour "Lower" = 0.5 0.5 0.5
 * @inlet upper colour "Upper" = 0.8 0.8 0.8
 * @inlet mode choice "Mode" = 1 of normal|multiply|screen|overlay|darken|lighten|color dodge|color burn|hard light|soft light|difference|plus
 * @inlet amount fraction "Amount" = 1 in 0..1: how much of the upper one counts.
 * @outlet result colour "Blended"
 */
vec3 blendColours(vec3 lower, vec3 upper, float mode, float amount) {
  vec3 blended = vec3(blendedChannel(lower.r, upper.r, mode), blendedChannel(lower.g, upper.g, mode), blendedChannel(lower.b, upper.b, mode));
  return mix(lower, blended, clamp(amount, 0.0, 1.0));
}
