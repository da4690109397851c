/**
 * Clearcoat: a clear layer of lacquer over the base; what it reflects does not reach the base.
 * @kind clearCoat 1
 * @family Light
 * @words varnish, lacquer, car paint, gloss, wet, layer, clear coat
 * @source KHR_materials_clearcoat (f0 0.04); many bounces: Fdez-Agüera 2019, JCGT 8(1)
 * @inlet under light "Base" = 0
 * @inlet coat fraction "Clearcoat" = 1 in 0..1: 0 is none.
 * @inlet roughness fraction "Roughness" = 0.05 in 0..1
 * @inlet normal normal "Normal" = surface normal
 * @factors coat, roughness
 * @outlet result light "Light"
 */
Lit clearCoat(Lit under, float coat, float roughness, vec3 normal) {
  float strength = clamp(coat, 0.0, 1.0);
  float rough = clamp(roughness, 0.03, 1.0);
  float alpha2 = squaredAlpha(rough);
  vec3 toEye = surfaceToEye();
  float nDotV = clamp(dot(normal, toEye), 1e-3, 1.0);
  vec3 albedos = albedosAt(nDotV, rough);
  float many = manyBounces(vec3(0.04), vec3(1.0), albedos).x * strength;
  float mirrored = many * (0.04 * albedos.x + albedos.y);
  vec3 shine = vec3(0.0);
  int count = lightsInUse();
  for (int i = 0; i < count; i++) {
    LightHere light = lightHere(i);
    float nDotL = dot(normal, light.toLight);
    if (nDotL > 0.0) {
      vec3 halfway = safeNormalize(light.toLight + toEye);
      float nDotH = clamp(dot(normal, halfway), 0.0, 1.0);
      float lobe = ggxDensity(alpha2, nDotH) * smithVisibility(alpha2, nDotL, nDotV);
      float fresnel = 0.04 + 0.96 * fifthPower(1.0 - clamp(dot(toEye, halfway), 0.0, 1.0));
      shine += light.specular * (light.shadow * nDotL * lobe * fresnel * many);
    }
  }
  Lit lit = multiplyValues(under, 1.0 - mirrored);
  lit.specular += shine;
  lit.reflection += mirrored * mirroredHere(reflect(-toEye, normal), clamp(roughness, 0.0, 1.0));
  return lit;
}
