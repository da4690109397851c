// Hides all that is behind it.
float solid() {
  return 1.0;
}

// What a program gives a pixel, by how the material is to be seen through. Colours come with their light already weighed
// by the opacity where they are laid over others (Porter, Duff 1984, "Compositing digital images", SIGGRAPH).
vec4 seenWhole(vec3 light, float opacity) {
  return vec4(light, 1.0);
}

// What is cut away leaves nothing, not even depth.
vec4 seenCut(vec3 light, float opacity) {
  if (opacity < 0.5) {
    discard;
  }
  return vec4(light, 1.0);
}

vec4 seenOver(vec3 light, float opacity) {
  float cover = clamp(opacity, 0.0, 1.0);
  return vec4(light * cover, cover);
}

// How much what is laid over in no order counts, by how near it is: McGuire, Bavoil 2013, "Weighted blended order-independent
// transparency", JCGT 2(2), equation 7, scaled so that sums stay within half floats.
float nearWeight(float depth) {
  float far = clamp(depth, 0.0, 1.0e3);
  float wide = far / 200.0;
  return clamp(0.1 / (1e-3 + far * far / 25.0 + wide * wide * wide * wide * wide * wide), 1e-4, 30.0);
}

vec4 seenGathered(vec3 light, float opacity) {
  float cover = clamp(opacity, 0.0, 1.0);
  return vec4(min(light, vec3(1.0e3)) * (cover * nearWeight(depthHere())), 0.0);
}

vec4 seenAdded(vec3 light, float opacity) {
  return vec4(light * clamp(opacity, 0.0, 1.0), 0.0);
}
