// Depths as lights see them, in four squares: two beside each other, two above.
uniform sampler2D shadowAtlas;

const float SHADOW_SIDE = 1024.0;

// Whether light gets to a depth past one texel of a square, 1 or 0. Beyond the square it does.
float litTexel(ivec2 texel, ivec2 corner, float depth) {
  if (min(texel.x, texel.y) < 0 || max(texel.x, texel.y) >= 1024) {
    return 1.0;
  }
  return depth <= texelFetch(shadowAtlas, corner + texel, 0).r ? 1.0 : 0.0;
}

// Percentage-closer filtering (Reeves, Salesin, Cook 1987, "Rendering antialiased shadows with depth maps", SIGGRAPH):
// nine comparisons under a tent, `spread` texels apart.
float filteredShadow(vec2 place, ivec2 corner, float depth, float spread) {
  vec2 texel = place * SHADOW_SIDE - 0.5;
  vec2 base = floor(texel + 0.5);
  vec2 part = texel - base;
  float sum = 0.0;
  float total = 0.0;
  for (float y = -1.0; y < 1.5; y++) {
    float high = 1.5 - abs(y - part.y);
    for (float x = -1.0; x < 1.5; x++) {
      float weight = high * (1.5 - abs(x - part.x));
      sum += weight * litTexel(ivec2(base + floor(vec2(x, y) * spread + 0.5)), corner, depth);
      total += weight;
    }
  }
  return sum / total;
}

// How much of a light's way to this point is free, 0…1. The point is looked up a little way along its normal, farther
// where the light grazes, so that a surface does not shade itself.
float shadowHere(int slot, vec3 normal, vec3 toLight) {
  vec4 info = shadowInfo[slot];
  float cosine = dot(normal, toLight);
  float grazing = sqrt(clamp(1.0 - cosine * cosine, 0.0, 1.0));
  vec3 place = worldPosition + normal * (info.x * (0.6 + 1.4 * grazing) * (1.0 + info.y));
  vec4 clip = shadowFromWorld[slot] * vec4(place, 1.0);
  vec3 seen = clip.xyz / max(clip.w, 1e-6);
  vec2 at = vec2(seen.x * 0.5 + 0.5, 0.5 - seen.y * 0.5);
  ivec2 corner = ivec2(int(mod(float(slot), 2.0)) * 1024, (slot / 2) * 1024);
  return clip.w > 0.0 ? filteredShadow(at, corner, min(seen.z, 0.99999), max(info.y, 1.0)) : 1.0;
}

// How strongly shadow counts: fully, but where the picture is taken apart.
float seenShadow(float lit) {
  return lit;
}
