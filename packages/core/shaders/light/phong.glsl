/**
 * Phong: matte light with a highlight where the light's reflection meets your eye.
 * @kind phong 1
 * @family Light
 * @words specular, highlight, shininess, glossy, shiny, gloss, plastic, mirror direction
 * @source Phong 1975, "Illumination for computer generated pictures", CACM 18(6), section "The shading model"
 * @inlet base colour "Colour" = 0.8 0.8 0.8: the colour of the surface.
 * @inlet specular colour "Highlight" = 0.5 0.5 0.5: colour and strength of the highlight.
 * @inlet exponent number "Exponent" = 8 in 1..512: higher is smaller and sharper; about a quarter of Blinn-Phong's looks alike.
 * @inlet normal normal "Normal" = surface normal
 * @inlet toEye directionToEye "View direction" = surface viewDirection
 * @factors base, specular
 * @outlet result light "Light"
 */
Lit phong(vec3 base, vec3 specular, float exponent, vec3 normal, vec3 toEye) {
  vec3 seen = seenBase(base);
  vec3 mirrored = reflect(-toEye, normal);
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
      float along = clamp(dot(mirrored, light.toLight), 1e-6, 1.0);
      matte += light.diffuse * (light.shadow * nDotL);
      shine += light.specular * (light.shadow * pow(along, power));
    }
  }
  Lit lit = darkness();
  lit.ambient = seen * around;
  lit.diffuse = seen * matte;
  lit.specular = specular * shine;
  return lit;
}

/**
 * Matching exponent: the Blinn-Phong exponent whose spot is as wide as that of a Phong exponent.
 * @kind matchingExponent 1
 * @family Light
 * @words phong, blinn, highlight size, convert, equal, shininess
 * @source Both spots fall to one half at the same angle: cosⁿ(θ) = cosᵐ(θ / 2) = 1/2, with the half vector at θ / 2 (Blinn 1977)
 * @inlet exponent number "Phong's exponent" = 8 in 1..512
 * @outlet result number "Blinn-Phong's exponent"
 */
float matchingExponent(float exponent) {
  float angle = acos(clamp(pow(0.5, 1.0 / clamp(exponent, 0.1, 1e4)), -1.0, 1.0));
  return log(0.5) / min(log(max(cos(0.5 * angle), 1e-6)), -1e-7);
}
