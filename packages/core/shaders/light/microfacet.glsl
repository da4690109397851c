/**
 * Distribution, GGX: how many microfacets of a rough surface face a direction.
 * @kind distributionGgx 1
 * @family Light
 * @words trowbridge reitz, roughness, highlight, microfacet, ndf
 * @source Trowbridge, Reitz 1975; glTF 2.0 specification, appendix B.3.2
 * @inlet roughness fraction "Roughness" = 0.5 in 0..1: its square is the width alpha.
 * @inlet nDotH fraction "Cosine to half" = 1 in 0..1: between the normal and the half vector of light and eye.
 * @outlet result number "Density": its projection on the surface adds up to 1.
 */
float distributionGgx(float roughness, float nDotH) {
  float cosine = clamp(nDotH, 0.0, 1.0);
  return cosine > 0.0 ? ggxDensity(squaredAlpha(roughness), cosine) / 3.14159265 : 0.0;
}

// Alpha is the square of what artists call roughness; it never gets so small that half floats lose the highlight.
float squaredAlpha(float roughness) {
  float held = clamp(roughness, 0.03, 1.0);
  return held * held * held * held;
}

// The density times π, of alpha squared.
float ggxDensity(float alpha2, float nDotH) {
  float f = nDotH * nDotH * (alpha2 - 1.0) + 1.0;
  return alpha2 / (f * f);
}

// Of cosines above 0.
float smithVisibility(float alpha2, float nDotL, float nDotV) {
  float behind = nDotL * sqrt(nDotV * nDotV * (1.0 - alpha2) + alpha2) + nDotV * sqrt(nDotL * nDotL * (1.0 - alpha2) + alpha2);
  return 0.5 / behind;
}

/**
 * Visibility, Smith: how many microfacets of a rough surface both light and eye see: shadowing and masking.
 * @kind visibilitySmith 1
 * @family Light
 * @words geometry, masking, shadowing, ggx, microfacet
 * @source Heitz 2014, "Understanding the masking-shadowing function", JCGT 3(2), height-correlated; glTF 2.0, appendix B.3.2
 * @inlet roughness fraction "Roughness" = 0.5 in 0..1: its square is the width alpha.
 * @inlet nDotL fraction "Cosine to light" = 1 in 0..1
 * @inlet nDotV fraction "Cosine to eye" = 1 in 0..1
 * @outlet result number "Visibility": divided by 4 times both cosines already.
 */
float visibilitySmith(float roughness, float nDotL, float nDotV) {
  return smithVisibility(squaredAlpha(roughness), clamp(nDotL, 1e-4, 1.0), clamp(nDotV, 1e-4, 1.0));
}
