// How the eye's three colour curves answer to a film that shifts the phase of light; XYZ, then Rec. 709.
vec3 filmSensitivity(float pathNanometres, vec3 shift) {
  float phase = 6.28318531 * pathNanometres * 1.0e-9;
  vec3 heights = vec3(5.4856e-13, 4.4201e-13, 5.2481e-13);
  vec3 places = vec3(1.6810e6, 1.7953e6, 2.2084e6);
  vec3 widths = vec3(4.3278e9, 9.3046e9, 6.6121e9);
  vec3 xyz = heights * sqrt(6.28318531 * widths) * cos(places * phase + shift) * exp(-widths * phase * phase);
  xyz.x += 9.7470e-14 * sqrt(6.28318531 * 4.5282e9) * cos(2.2399e6 * phase + shift.x) * exp(-4.5282e9 * phase * phase);
  xyz = xyz / 1.0685e-7;
  return vec3(
    3.2404542 * xyz.x - 1.5371385 * xyz.y - 0.4985314 * xyz.z,
    -0.9692660 * xyz.x + 1.8760108 * xyz.y + 0.0415560 * xyz.z,
    0.0556434 * xyz.x - 0.2040259 * xyz.y + 1.0572252 * xyz.z
  );
}

vec3 reflectanceBetween(vec3 inner, float outer) {
  vec3 root = (inner - outer) / (inner + outer);
  return root * root;
}

/**
 * Thin film: iridescence: the interference colours of a layer about as thin as a wavelength of light.
 * @kind thinFilm 1
 * @family Light
 * @words iridescence, soap, oil, bubble, interference, nacre, rainbow
 * @source Belcour, Barla 2017, "A practical extension to microfacet theory for the modeling of varying iridescence", SIGGRAPH; KHR_materials_iridescence
 * @inlet under colour "Base reflectivity" = 0.04 0.04 0.04: what the surface under the film mirrors head on.
 * @inlet ior number "Film IOR" = 1.3 in 1..2.5
 * @inlet thickness number "Thickness" = 400 in 0..1200 unit nm
 * @inlet normal normal "Normal" = surface normal
 * @inlet toEye directionToEye "View direction" = surface viewDirection
 * @outlet result colour "Reflectance": 0…1 by channel.
 */
vec3 thinFilm(vec3 under, float ior, float thickness, vec3 normal, vec3 toEye) {
  return filmReflectance(under, ior, thickness, clamp(abs(dot(safeNormalize(normal), safeNormalize(toEye))), 0.0, 1.0));
}

vec3 filmReflectance(vec3 under, float ior, float thickness, float cosine) {
  float thick = clamp(thickness, 0.0, 1.0e4);
  // A film that vanishes has the index of air.
  float film = mix(1.0, clamp(ior, 1.0, 10.0), smoothStepBetween(0.0, 0.03, thick));
  float sine2 = (1.0 - cosine * cosine) / (film * film);
  if (sine2 >= 1.0) {
    return vec3(1.0);
  }
  float inside = sqrt(1.0 - sine2);
  float outer = reflectanceBetween(vec3(film), 1.0).x;
  float upper = outer + (1.0 - outer) * fifthPower(1.0 - cosine);
  float passed = 1.0 - upper;
  vec3 root = sqrt(clamp(under, 1e-4, 0.9999));
  vec3 base = (1.0 + root) / (1.0 - root);
  vec3 inner = reflectanceBetween(base, film);
  vec3 lower = inner + (1.0 - inner) * fifthPower(1.0 - inside);
  // Light turns by half a wave where it is mirrored off what is denser.
  vec3 shift = vec3(3.14159265) + vec3(base.x < film ? 3.14159265 : 0.0, base.y < film ? 3.14159265 : 0.0, base.z < film ? 3.14159265 : 0.0);
  float path = 2.0 * film * thick * inside;
  vec3 both = clamp(upper * lower, 1e-5, 0.9999);
  vec3 amplitude = sqrt(both);
  vec3 steady = passed * passed * lower / (1.0 - both);
  vec3 swing = (steady - passed) * amplitude;
  vec3 mirrored = upper + steady + swing * 2.0 * filmSensitivity(path, shift);
  mirrored += swing * amplitude * 2.0 * filmSensitivity(2.0 * path, 2.0 * shift);
  return clamp(mirrored, 0.0, 1.0);
}

// What mirrors like this at this angle mirrors so much head on, were it to follow Schlick's curve.
vec3 headOnOf(vec3 mirrored, float cosine) {
  float glancing = min(fifthPower(1.0 - cosine), 0.95);
  return clamp((mirrored - glancing) / (1.0 - glancing), 0.0, 1.0);
}
