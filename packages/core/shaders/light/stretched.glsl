/**
 * Anisotropic highlight: a highlight drawn out across the grain, as on hair, silk or brushed metal.
 * @kind stretchedHighlight 1
 * @family Light
 * @words hair, anisotropic, anisotropy, kajiya kay, strand, brushed, silk, angel ring, specular, stretched highlight
 * @source Kajiya, Kay 1989, "Rendering fur with three dimensional textures", SIGGRAPH, equation 16, with the half vector of Blinn 1977
 * @inlet colour colour "Colour" = 1 1 1
 * @inlet exponent number "Exponent" = 60 in 1..512: higher is narrower.
 * @inlet shift number "Shift" = 0 in -1..1: moves the highlight along the grain, towards the tips.
 * @inlet grain vector "Grain" = surface tangent
 * @inlet normal normal "Normal" = surface normal
 * @inlet toEye directionToEye "View direction" = surface viewDirection
 * @outlet result light "Light"
 */
Lit stretchedHighlight(vec3 colour, float exponent, float shift, vec3 grain, vec3 normal, vec3 toEye) {
  vec3 along = safeNormalize(grain + normal * shift);
  Lit lit = darkness();
  int total = lightsInUse();
  for (int i = 0; i < total; i++) {
    LightHere light = lightHere(i);
    float cosine = dot(along, safeNormalize(light.toLight + toEye));
    float sine = sqrt(max(1.0 - cosine * cosine, 0.0));
    float shown = smoothStepBetween(-0.1, 0.3, dot(normal, light.toLight));
    lit.specular += colour * light.specular * (light.shadow * shown * pow(max(sine, 1e-6), max(exponent, 1e-3)));
  }
  return lit;
}
