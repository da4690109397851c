uniform sampler2D brighter;

uniform BloomDown {
  vec4 sourceStep;   // x, y: 1 / size of what is read; z: brightness from which light spreads; w: exposure factor
  vec4 targetExtent; // x, y: size of the target in pixels
};

out vec4 pixel;

// What light has above a brightness, its hue kept.
vec3 above(vec3 light, float from) {
  float peak = max(light.r, max(light.g, light.b));
  return light * (max(peak - from, 0.0) / max(peak, 1e-4));
}

// Half the size: four reads between pixels, each the mean of four. The first step takes only what is bright.
void main() {
  vec2 at = gl_FragCoord.xy / targetExtent.xy;
  vec3 sum = vec3(0.0);
  for (int i = 0; i < 4; i++) {
    vec2 corner = vec2(mod(float(i), 2.0) - 0.5, floor(float(i) / 2.0) - 0.5) * 2.0;
    vec3 light = min(texture(brighter, at + corner * sourceStep.xy).rgb * sourceStep.w, vec3(64.0));
    sum += above(light, sourceStep.z) * 0.25;
  }
  pixel = vec4(sum, 1.0);
}
