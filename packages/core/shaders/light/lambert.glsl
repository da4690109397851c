/**
 * Lambert: matte light, brightest where the surface faces the light.
 * @kind lambert 1
 * @family Light
 * @words diffuse, lambertian, matte, shading, basic, plain
 * @source Lambert 1760, "Photometria"; cosine law, normalised so that white under light 1 reads 1
 * @inlet base colour "Colour" = 0.8 0.8 0.8: the colour of the surface.
 * @inlet normal normal "Normal" = surface normal
 * @factors base
 * @outlet result light "Light"
 */
Lit lambert(vec3 base, vec3 normal) {
  vec3 seen = seenBase(base);
  vec3 around = ambientHere(normal);
  vec3 matte = vec3(0.0);
  int count = lightsInUse();
  for (int i = 0; i < count; i++) {
    LightHere light = lightHere(i);
    around += light.ambient;
    matte += light.diffuse * (light.shadow * max(dot(normal, light.toLight), 0.0));
  }
  Lit lit = darkness();
  lit.ambient = seen * around;
  lit.diffuse = seen * matte;
  return lit;
}

/**
 * Wrapped light: matte light that reaches round the edge, as through skin or wax.
 * @kind wrapped 1
 * @family Light
 * @words half lambert, wrap lighting, wrap, soft, half, subsurface, skin, wax
 * @source Green 2004, "Real-time approximations to subsurface scattering", GPU Gems, section 16.2
 * @inlet base colour "Colour" = 0.8 0.8 0.8: the colour of the surface.
 * @inlet wrap fraction "Wrap" = 0.5 in 0..1: 0 is Lambert's law, 1 lights everything but the very back.
 * @inlet normal normal "Normal" = surface normal
 * @factors base
 * @outlet result light "Light"
 */
Lit wrapped(vec3 base, float wrap, vec3 normal) {
  vec3 seen = seenBase(base);
  float reach = clamp(wrap, 0.0, 1.0);
  vec3 around = ambientHere(normal);
  vec3 matte = vec3(0.0);
  int count = lightsInUse();
  for (int i = 0; i < count; i++) {
    LightHere light = lightHere(i);
    around += light.ambient;
    matte += light.diffuse * (light.shadow * max((dot(normal, light.toLight) + reach) / (1.0 + reach), 0.0));
  }
  Lit lit = darkness();
  lit.ambient = seen * around;
  lit.diffuse = seen * matte;
  return lit;
}
