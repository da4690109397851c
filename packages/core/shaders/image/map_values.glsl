/**
 * Occlusion strength: how much an occlusion map darkens.
 * @kind occlusionStrength 1
 * @family Images
 * @words ao, ambient occlusion, baked, crevice, intensity
 * @source glTF 2.0 specification, section 5.20 (occlusionTextureInfo.strength): 1 + strength × (map − 1)
 * @inlet map fraction "Map" = 1 in 0..1: 1 is open, 0 is wholly hidden; mostly the red of an image, read as data.
 * @inlet strength fraction "Strength" = 1 in 0..1: 0 leaves the map out.
 * @outlet result fraction "Occlusion"
 */
float occlusionOf(float map, float strength) {
  return 1.0 + clamp(strength, 0.0, 1.0) * (clamp(map, 0.0, 1.0) - 1.0);
}

/**
 * Roughness from gloss: a gloss map, white where it shines, as roughness.
 * @kind roughnessFromGloss 1
 * @family Images
 * @words glossiness, smoothness, invert, shininess
 * @source KHR_materials_pbrSpecularGlossiness, appendix: roughness = 1 − glossiness
 * @inlet gloss fraction "Gloss" = 0.5 in 0..1
 * @outlet result fraction "Roughness"
 */
float roughnessFromGloss(float gloss) {
  return 1.0 - clamp(gloss, 0.0, 1.0);
}

/**
 * Exponent from gloss: a gloss map as the exponent of a highlight, in even steps of sharpness.
 * @kind exponentFromGloss 1
 * @family Images
 * @words blinn, phong, shininess, specular power, smoothness
 * @source Geometric interpolation, low × (high / low) ^ gloss ^ power: equal steps of gloss multiply the exponent by equal factors
 * @inlet gloss fraction "Gloss" = 0.5 in 0..1: mostly the alpha of a specular map, read as data.
 * @inlet power number "Power" = 1 in 0.1..8: above 1 only what is very glossy shines sharply.
 * @inlet low number "Lowest" = 2 in 1..64: exponent where the map is black.
 * @inlet high number "Highest" = 512 in 8..4096: exponent where the map is white.
 * @outlet result number "Exponent"
 */
float exponentFromGloss(float gloss, float power, float low, float high) {
  float along = pow(clamp(gloss, 1e-6, 1.0), clamp(power, 1e-3, 100.0));
  float least = clamp(low, 1e-2, 1.0e5);
  return least * exp2(log2(clamp(high, 1e-2, 1.0e5) / least) * along);
}
