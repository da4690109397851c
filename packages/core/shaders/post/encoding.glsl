// IEC 61966-2-1:1999, section 5.2: the sRGB transfer function, for linear values in 0…1.
vec3 srgbFromLinear(vec3 linear) {
  vec3 low = linear * 12.92;
  vec3 high = 1.055 * pow(max(linear, vec3(1e-8)), vec3(1.0 / 2.4)) - 0.055;
  return mix(high, low, vec3(lessThanEqual(linear, vec3(0.0031308))));
}

// The way back, for values in 0…1.
vec3 linearFromSrgb(vec3 encoded) {
  vec3 low = encoded / 12.92;
  vec3 high = pow((max(encoded, vec3(0.04045)) + 0.055) / 1.055, vec3(2.4));
  return mix(high, low, vec3(lessThanEqual(encoded, vec3(0.04045))));
}

// Jarzynski, Olano 2020, "Hash functions for GPU rendering", JCGT 9(3): pcg.
uint pcgHash(uint value) {
  uint state = value * 747796405u + 2891336453u;
  uint word = ((state >> ((state >> 28u) + 4u)) ^ state) * 277803737u;
  return (word >> 22u) ^ word;
}

// Up to half of one 8-bit step either way, from the pixel's coordinates alone: pictures repeat exactly.
vec3 ditherAt(vec2 at) {
  uint hashed = pcgHash(uint(at.x) + pcgHash(uint(at.y)));
  return vec3((float(hashed & 65535u) / 65535.0 - 0.5) / 255.0);
}
