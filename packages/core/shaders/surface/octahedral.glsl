// A unit vector as two numbers in -1..1 (Cigolle et al. 2014, "A survey of efficient representations for independent unit
// vectors", Journal of Computer Graphics Techniques 3(2), section 3.1).
vec2 octahedral(vec3 direction) {
  vec2 folded = direction.xy / (abs(direction.x) + abs(direction.y) + abs(direction.z));
  vec2 sides = vec2(folded.x >= 0.0 ? 1.0 : -1.0, folded.y >= 0.0 ? 1.0 : -1.0);
  return direction.z >= 0.0 ? folded : (1.0 - abs(folded.yx)) * sides;
}

vec3 fromOctahedral(vec2 folded) {
  float up = 1.0 - abs(folded.x) - abs(folded.y);
  vec2 sides = vec2(folded.x >= 0.0 ? 1.0 : -1.0, folded.y >= 0.0 ? 1.0 : -1.0);
  vec2 side = up >= 0.0 ? folded : (1.0 - abs(folded.yx)) * sides;
  return safeNormalize(vec3(side, up));
}
