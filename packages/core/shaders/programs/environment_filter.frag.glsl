uniform samplerCube sharpEnvironment;

uniform Filtering {
  vec4 filterFace;   // x: face of the cube; y: 1 / its side in pixels; z: alpha; w: side of the sharp cube in pixels
  vec4 filterSums;   // x: looks above the horizon; y: their cosines added up; z: all looks; w: number of sources
  vec4 filterLooks[640]; // as filterLook gives them
  vec4 sourceWays[64];   // xyz: where each source is, unit length
  vec4 sourcePowers[64]; // rgb: its radiance times its solid angle
};

out vec4 pixel;

// One of the directions that a rough mirror sees, looked at from straight above, in the frame of its normal, whose z is the
// cosine; w is the level at which it is read. They are the same for all pixels. Where few fall, each stands for more of the
// sphere and reads a smaller picture of it (Křivánek, Colbert 2008, "Real-time shading with filtered importance sampling",
// Computer Graphics Forum 27(4)).
vec4 filterLook(int i, float count, float alpha, float side) {
  float alpha2 = alpha * alpha;
  // Solid angle of a pixel of the sharp cube, the same for all.
  float grain = 2.0943951 / (side * side);
  float u = (float(i) + 0.5) / count;
  float turn = 6.28318531 * fract(float(i) * 0.61803399);
  float cosine2 = (1.0 - u) / (1.0 + (alpha2 - 1.0) * u);
  float cosine = sqrt(cosine2);
  float sine = sqrt(max(1.0 - cosine2, 0.0));
  float density = ggxDensity(alpha2, cosine) * 0.07957747;
  float level = 0.5 * log2(1.0 / (count * density * grain)) + 0.25;
  return vec4(2.0 * cosine * sine * cos(turn), 2.0 * cosine * sine * sin(turn), 2.0 * cosine2 - 1.0, clamp(level, 0.0, log2(side)));
}

// What a rough mirror that faces this way sees: light by the GGX lobe and the cosine.
void main() {
  vec3 normal = faceDirection(int(filterFace.x), gl_FragCoord.xy * filterFace.y);
  float alpha2 = filterFace.z * filterFace.z;
  if (alpha2 <= 0.0) {
    pixel = vec4(textureLod(sharpEnvironment, normal, max(log2(filterFace.w * filterFace.y), 0.0)).rgb, 1.0);
    return;
  }
  mat3 frame = frameRound(normal);
  int count = int(filterSums.x);
  vec3 sum = vec3(0.0);
  for (int i = 0; i < count; i++) {
    vec4 look = filterLooks[i];
    sum += textureLod(sharpEnvironment, frame * look.xyz, look.w).rgb * look.z;
  }
  // Weights of samples are the cosine by the density; of light from one direction, all of it by both, and by what both add
  // up to all over the sphere.
  vec3 sources = vec3(0.0);
  int bright = int(filterSums.w);
  for (int i = 0; i < bright; i++) {
    float nDotL = dot(normal, sourceWays[i].xyz);
    if (nDotL > 0.0) {
      sources += sourcePowers[i].rgb * (nDotL * ggxDensity(alpha2, sqrt(0.5 + 0.5 * nDotL)));
    }
  }
  pixel = vec4((sum + sources * (0.07957747 * filterSums.z)) / max(filterSums.y, 1e-6), 1.0);
}
