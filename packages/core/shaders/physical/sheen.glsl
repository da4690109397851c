// Fit of the masking between fibres: Estevez, Kulla 2017, "Production friendly microfacet sheen BRDF", SIGGRAPH course, eq. 3.
float fibreFit(float cosine, float alpha) {
  float o = (1.0 - alpha) * (1.0 - alpha);
  float a = mix(21.5473, 25.3245, o);
  float b = mix(3.82987, 3.32435, o);
  float c = mix(0.19823, 0.16801, o);
  float d = mix(-1.97760, -1.27393, o);
  float e = mix(-4.32054, -4.85967, o);
  return a / (1.0 + b * pow(max(cosine, 1e-6), c)) + d * cosine + e;
}

float fibreMasking(float cosine, float alpha) {
  return cosine < 0.5 ? exp(fibreFit(cosine, alpha)) : exp(2.0 * fibreFit(0.5, alpha) - fibreFit(1.0 - cosine, alpha));
}

float fibreAlpha(float roughness) {
  float held = clamp(roughness, 0.07, 1.0);
  return held * held;
}

// Density of standing fibres times visibility times π: KHR_materials_sheen, section "Sheen BRDF". Cosines are above 0.
float fibreLobe(float alpha, float nDotH, float nDotL, float nDotV) {
  float sine2 = max(1.0 - nDotH * nDotH, 1e-6);
  float density = (2.0 + 1.0 / alpha) * pow(sine2, 0.5 / alpha) * 0.5;
  return density / ((1.0 + fibreMasking(nDotV, alpha) + fibreMasking(nDotL, alpha)) * 4.0 * nDotV * nDotL);
}

/**
 * Sheen: a soft glow of fibres at grazing angles, over the base; what it scatters does not reach the base.
 * @kind sheenLayer 1
 * @family Light
 * @words cloth, velvet, felt, fuzz, dust, fabric, layer
 * @source Estevez, Kulla 2017, "Production friendly microfacet sheen BRDF", SIGGRAPH course; KHR_materials_sheen
 * @inlet under light "Base" = 0
 * @inlet colour colour "Colour" = 0.5 0.5 0.5: black is none.
 * @inlet roughness fraction "Roughness" = 0.4 in 0..1: lower is a finer edge.
 * @inlet normal normal "Normal" = surface normal
 * @factors colour, roughness
 * @outlet result light "Light"
 */
Lit sheenLayer(Lit under, vec3 colour, float roughness, vec3 normal) {
  vec3 tint = clamp(colour, 0.0, 1.0);
  vec3 toEye = surfaceToEye();
  float nDotV = clamp(dot(normal, toEye), 1e-3, 1.0);
  float albedo = albedosAt(nDotV, clamp(roughness, 0.07, 1.0)).z;
  float alpha = fibreAlpha(roughness);
  vec3 shine = vec3(0.0);
  int count = lightsInUse();
  for (int i = 0; i < count; i++) {
    LightHere light = lightHere(i);
    float nDotL = dot(normal, light.toLight);
    if (nDotL > 0.0) {
      float nDotH = clamp(dot(normal, safeNormalize(light.toLight + toEye)), 0.0, 1.0);
      shine += light.specular * (light.shadow * nDotL * fibreLobe(alpha, nDotH, max(nDotL, 1e-3), nDotV));
    }
  }
  Lit lit = multiplyValues(under, 1.0 - largestOf(tint) * albedo);
  lit.specular += tint * shine;
  lit.reflection += tint * albedo * mirroredHere(reflect(-toEye, normal), clamp(roughness, 0.0, 1.0));
  return lit;
}
