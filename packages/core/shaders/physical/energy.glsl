// How much of the light that a lobe gets it sends on, from any direction: without this rough metals are too dark and layers
// shine more than they get.

// Over the square root of the cosine to the eye and over roughness: what multiplies f0 in x, what f90 in y, and in z the
// albedo of the sheen lobe; worked out by `split_sum`.
uniform sampler2D splitSum;

// The albedos of a direction. Karis 2013, in the SIGGRAPH course "Physically based shading in theory and practice": the second of the two sums.
vec3 albedosAt(float nDotV, float roughness) {
  vec2 at = vec2(sqrt(clamp(nDotV, 0.0, 1.0)), clamp(roughness, 0.0, 1.0));
  return textureLod(splitSum, at * 0.984375 + 0.0078125, 0.0).xyz;
}

// By how much more than one bounce gives all bounces between a surface's tiny mirrors give: Fdez-Agüera 2019,
// "A multiple-scattering microfacet model for real-time image-based lighting", JCGT 8(1), equations 9 to 11, as one factor.
vec3 manyBounces(vec3 f0, vec3 f90, vec3 albedos) {
  vec3 average = f0 + (f90 - f0) / 21.0;
  return 1.0 / (1.0 - average * (1.0 - min(albedos.x + albedos.y, 1.0)));
}

float largestOf(vec3 value) {
  return max(value.x, max(value.y, value.z));
}

float fifthPower(float value) {
  float squared = value * value;
  return squared * squared * value;
}

// How much of what is mirrored a hollow hides: Lagarde, de Rousiers 2014, in the SIGGRAPH course
// "Physically based shading in theory and practice", section 4.10.2.
float mirrorOcclusion(float nDotV, float occlusion, float roughness) {
  return clamp(pow(max(nDotV + occlusion, 1e-4), exp2(-16.0 * roughness - 1.0)) - 1.0 + occlusion, 0.0, 1.0);
}
