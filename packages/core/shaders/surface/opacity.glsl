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

vec4 seenAdded(vec3 light, float opacity) {
  return vec4(light * clamp(opacity, 0.0, 1.0), 0.0);
}
