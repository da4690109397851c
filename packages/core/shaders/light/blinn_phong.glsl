/**
 * Blinn-Phong: matte light with a round highlight.
 * @kind blinnPhong 1
 * @family Light
 * @words specular, highlight, shininess, glossy, shiny, gloss, plastic
 * @source Blinn 1977, "Models of light reflection for computer synthesized pictures", SIGGRAPH, section 2 (half vector)
 * @inlet base colour "Colour" = 0.8 0.8 0.8: the colour of the surface.
 * @inlet specular colour "Highlight" = 0.5 0.5 0.5: colour and strength of the highlight.
 * @inlet exponent number "Exponent" = 32 in 1..512: higher is smaller and sharper.
 * @inlet normal normal "Normal" = surface normal
 * @inlet toEye directionToEye "View direction" = surface viewDirection
 * @factors base, specular
 * @outlet result light "Light"
 */
Lit blinnPhong(vec3 base, vec3 specular, float exponent, vec3 normal, vec3 toEye) {
  vec3 seen = seenBase(base);
  vec3 around = ambientHere(normal);
  vec3 matte = vec3(0.0);
  vec3 shine = vec3(0.0);
  float power = max(exponent, 1e-3);
  int count = lightsInUse();
  for (int i = 0; i < count; i++) {
    LightHere light = lightHere(i);
    around += light.ambient;
    float nDotL = dot(normal, light.toLight);
    if (nDotL > 0.0) {
      float nDotH = clamp(dot(normal, safeNormalize(light.toLight + toEye)), 1e-6, 1.0);
      matte += light.diffuse * (light.shadow * nDotL);
      // Both arguments are in the domain of pow: no need for the careful power.
      shine += light.specular * (light.shadow * pow(nDotH, power));
    }
  }
  Lit lit = darkness();
  lit.ambient = seen * around;
  lit.diffuse = seen * matte;
  lit.specular = specular * shine;
  return lit;
}
