/**
 * Reflectivity from IOR: how much a dielectric reflects at normal incidence.
 * @kind reflectivityFromIor 1
 * @family Light
 * @words ior, f0, fresnel, index of refraction, specular, convert, reflectivity from ior
 * @source glTF extension KHR_materials_ior: ((n − 1) / (n + 1))²
 * @inlet ior number "Index of refraction" = 1.5 in 1..3
 * @outlet result fraction "Reflectivity": 0.04 for 1.5.
 */
float reflectivityFromIor(float ior) {
  float index = clamp(ior, 1.0, 1.0e3);
  float root = (index - 1.0) / (index + 1.0);
  return root * root;
}

/**
 * IOR from reflectivity: the index of refraction that reflects this much at normal incidence.
 * @kind iorFromReflectivity 1
 * @family Light
 * @words f0, fresnel, index of refraction, specular, convert, ior from reflectivity
 * @source Inverse of KHR_materials_ior: (1 + √r) / (1 − √r)
 * @inlet reflectivity fraction "Reflectivity" = 0.04 in 0..0.25
 * @outlet result number "Index of refraction"
 */
float iorFromReflectivity(float reflectivity) {
  float root = sqrt(clamp(reflectivity, 0.0, 0.9999));
  return (1.0 + root) / (1.0 - root);
}

/**
 * Absorption: what is left of light on its way through coloured glass or water.
 * @kind absorption 1
 * @family Light
 * @words beer lambert, beer, attenuation, volume, attenuation distance, depth, thickness, colour
 * @source Beer-Lambert law as glTF extension KHR_materials_volume states it
 * @inlet colour colour "Attenuation colour" = 1 1 1: what white light is after the distance.
 * @inlet distance number "Attenuation distance" = 0.1 in 0..2 unit m: 0 absorbs nothing.
 * @inlet travelled number "Distance travelled" = 0.1 in 0..2 unit m
 * @outlet result colour "Transmittance"
 */
vec3 absorption(vec3 colour, float distance, float travelled) {
  if (distance <= 0.0) {
    return vec3(1.0);
  }
  return pow(clamp(colour, 1e-4, 1.0), vec3(clamp(travelled, 0.0, 1.0e4) / max(distance, 1e-6)));
}
