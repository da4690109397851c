/**
 * Oren-Nayar: rough matte light, flatter than Lambert, as on clay, plaster or the moon.
 * @kind orenNayar 1
 * @family Light
 * @words diffuse, rough diffuse, clay, plaster, dust, rough, moon
 * @source Oren, Nayar 1994, "Generalization of Lambert's reflectance model", SIGGRAPH, equation 30 (qualitative model)
 * @inlet base colour "Colour" = 0.8 0.8 0.8: the colour of the surface.
 * @inlet roughness number "Roughness" = 0.5 in 0..1 unit radians: how far its facets are tilted; 0 is Lambert's law.
 * @inlet normal normal "Normal" = surface normal
 * @inlet toEye directionToEye "View direction" = surface viewDirection
 * @factors base
 * @outlet result light "Light"
 */
Lit orenNayar(vec3 base, float roughness, vec3 normal, vec3 toEye) {
  vec3 seen = seenBase(base);
  float slope = clamp(roughness, 0.0, 1.5);
  float squared = slope * slope;
  float a = 1.0 - 0.5 * squared / (squared + 0.33);
  float b = 0.45 * squared / (squared + 0.09);
  float nDotV = clamp(dot(normal, toEye), 0.0, 1.0);
  vec3 around = ambientHere(normal);
  vec3 matte = vec3(0.0);
  int count = lightsInUse();
  for (int i = 0; i < count; i++) {
    LightHere light = lightHere(i);
    float nDotL = clamp(dot(normal, light.toLight), 0.0, 1.0);
    // cos(φl − φv) · sin θl · sin θv, without angles: what is left of l·v after the parts along the normal.
    float together = dot(light.toLight, toEye) - nDotL * nDotV;
    // sin α tan β = sin sin / max(cos, cos).
    float tilted = max(together, 0.0) / max(max(nDotL, nDotV), 1e-3);
    around += light.ambient;
    matte += light.diffuse * (light.shadow * nDotL * (a + b * tilted));
  }
  Lit lit = darkness();
  lit.ambient = seen * around;
  lit.diffuse = seen * matte;
  return lit;
}
