// What near surfaces leave of light from all around, found before the picture is drawn: in x, 0…1, beside the depth it was
// found at, metres from the plane of the eye, in y. Half as large as the picture.
uniform sampler2D nearOcclusion;

// The four places round a pixel, weighed by how near they are and how alike in depth; where none lies on the same surface
// (what is seen through, the thin edge of something) nothing is occluded.
float openHere() {
  vec2 size = vec2(textureSize(nearOcclusion, 0));
  vec2 at = pixelHere() * targetSize.zw * size - 0.5;
  vec2 base = floor(at);
  vec2 part = at - base;
  float depth = depthHere();
  float sum = 0.0;
  float weights = 0.0;
  for (int i = 0; i < 4; i++) {
    vec2 corner = vec2(mod(float(i), 2.0), floor(float(i) * 0.5));
    vec2 found = texelFetch(nearOcclusion, ivec2(clamp(base + corner, vec2(0.0), size - 1.0)), 0).xy;
    vec2 near = mix(1.0 - part, part, corner);
    float alike = clamp(1.0 - abs(found.y - depth) / max(0.04 * depth, 1e-4), 0.0, 1.0);
    float weight = (near.x * near.y + 0.05) * alike;
    sum += found.x * weight;
    weights += weight;
  }
  return weights > 1e-4 ? sum / weights : 1.0;
}

// These take the places of ambientHere and mirroredHere in programs for pictures whose rig occludes.
vec3 occludedAmbient(vec3 normal) {
  return ambientFrom(normal) * openHere();
}

// What a mirror sees is occluded the less the sharper it is, and where it looks along the surface: Lagarde, de Rousiers 2014,
// in the SIGGRAPH course "Physically based shading in theory and practice", section 4.10.2, with the angle of the mirrored way.
float mirrorOpen(float open, vec3 direction, float roughness) {
  float cosine = clamp(dot(surfaceNormal(), direction), 0.0, 1.0);
  return clamp(pow(max(cosine + open, 0.0), exp2(-16.0 * clamp(roughness, 0.0, 1.0) - 1.0)) - 1.0 + open, 0.0, 1.0);
}

vec3 occludedMirror(vec3 direction, float roughness) {
  return mirroredFrom(direction, roughness) * mirrorOpen(openHere(), direction, roughness);
}
