uniform samplerCube sharpEnvironment;

uniform Filtering {
  vec4 filterFace;   // x: face of the cube; y: 1 / its side in pixels; z: alpha; w: number of samples
  vec4 filterFrom;   // x: side of the sharp cube in pixels; y: its last level; z: number of sources
  vec4 sourceWays[64];   // xyz: where each source is, unit length
  vec4 sourcePowers[64]; // rgb: its radiance times its solid angle
};

out vec4 pixel;

// What a rough mirror that faces this way sees, looked at from straight above: light by the GGX lobe and the cosine. Where
// few samples fall, each stands for more of the sphere and reads a smaller picture of it (Křivánek, Colbert 2008,
// "Real-time shading with filtered importance sampling", Computer Graphics Forum 27(4)).
void main() {
  vec3 normal = faceDirection(int(filterFace.x), gl_FragCoord.xy * filterFace.y);
  float alpha2 = filterFace.z * filterFace.z;
  if (alpha2 <= 0.0) {
    pixel = vec4(textureLod(sharpEnvironment, normal, max(log2(filterFrom.x * filterFace.y), 0.0)).rgb, 1.0);
    return;
  }
  mat3 frame = frameRound(normal);
  int count = int(filterFace.w);
  // Solid angle of a pixel of the sharp cube, the same for all.
  float grain = 2.0943951 / (filterFrom.x * filterFrom.x);
  vec3 sum = vec3(0.0);
  float weights = 0.0;
  for (int i = 0; i < count; i++) {
    float u = (float(i) + 0.5) / filterFace.w;
    float turn = 6.28318531 * fract(float(i) * 0.61803399);
    float cosine2 = (1.0 - u) / (1.0 + (alpha2 - 1.0) * u);
    float cosine = sqrt(cosine2);
    float sine = sqrt(max(1.0 - cosine2, 0.0));
    // The mirrored direction, in the frame of the normal.
    float nDotL = 2.0 * cosine2 - 1.0;
    if (nDotL > 0.0) {
      vec3 way = frame * vec3(2.0 * cosine * sine * cos(turn), 2.0 * cosine * sine * sin(turn), nDotL);
      float density = ggxDensity(alpha2, cosine) * 0.07957747;
      float level = 0.5 * log2(1.0 / (filterFace.w * density * grain)) + 0.25;
      sum += textureLod(sharpEnvironment, way, clamp(level, 0.0, filterFrom.y)).rgb * nDotL;
      weights += nDotL;
    }
  }
  // Weights of samples are the cosine by the density; of light from one direction, all of it by both, and by what both add
  // up to all over the sphere.
  vec3 sources = vec3(0.0);
  int bright = int(filterFrom.z);
  for (int i = 0; i < bright; i++) {
    float nDotL = dot(normal, sourceWays[i].xyz);
    if (nDotL > 0.0) {
      sources += sourcePowers[i].rgb * (nDotL * ggxDensity(alpha2, sqrt(0.5 + 0.5 * nDotL)));
    }
  }
  pixel = vec4(sum / max(weights, 1e-6) + sources * (0.07957747 * filterFace.w / max(weights, 1e-6)), 1.0);
}
