// A brushed surface mirrors farther across its grooves than along them: GGX with two widths, as glTF extension
// KHR_materials_anisotropy states it. Widths are alphas; `along` lies in the surface, of unit length.

// Density times visibility times π; cosines to light and eye are above 0.
float brushedLobe(vec2 alphas, vec3 along, vec3 across, vec3 halfway, vec3 toLight, vec3 toEye, float nDotH, float nDotL, float nDotV) {
  float wide = alphas.x * alphas.y;
  vec3 f = vec3(alphas.y * dot(along, halfway), alphas.x * dot(across, halfway), wide * nDotH);
  float w2 = wide / max(dot(f, f), 1e-12);
  float density = wide * w2 * w2;
  float fromEye = nDotL * length(vec3(alphas.x * dot(along, toEye), alphas.y * dot(across, toEye), nDotV));
  float fromLight = nDotV * length(vec3(alphas.x * dot(along, toLight), alphas.y * dot(across, toLight), nDotL));
  return density * 0.5 / max(fromEye + fromLight, 1e-7);
}

// The direction of the grooves, turned in the surface from its tangent, counter-clockwise.
vec3 groovesAlong(vec3 normal, float turn) {
  vec3 along = surfaceTangent();
  vec3 tangent = safeNormalize(along - normal * dot(normal, along));
  vec3 bitangent = cross(normal, tangent) * (worldTangent.w < 0.0 ? -1.0 : 1.0);
  return tangent * cos(turn) + bitangent * sin(turn);
}

// A normal that mirrors the stretched picture with a round lobe: KHR_materials_anisotropy, section "Image based lighting".
vec3 brushedNormal(vec3 normal, vec3 across, vec3 toEye, float strength, float roughness) {
  float round = 1.0 - strength * (1.0 - roughness);
  float kept = round * round * round * round;
  return safeNormalize(mix(cross(cross(across, toEye), across), normal, kept));
}
