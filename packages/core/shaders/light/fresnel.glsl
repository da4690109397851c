/**
 * Fresnel, Schlick: how much a surface reflects at an angle, approximately.
 * @kind fresnelSchlick 1
 * @family Light
 * @words reflectance, glancing, edge, facing
 * @source Schlick 1994, "An inexpensive BRDF model for physically-based rendering", Computer Graphics Forum 13(3)
 * @inlet f0 fraction "Facing" = 0.04 in 0..1: what it mirrors head on; 0.04 for most that is no metal.
 * @inlet normal normal "Normal" = surface normal
 * @inlet toEye directionToEye "View direction" = surface viewDirection
 * @outlet result fraction "Reflectance": 0…1.
 */
float fresnelSchlick(float f0, vec3 normal, vec3 toEye) {
  float away = 1.0 - clamp(abs(dot(safeNormalize(normal), safeNormalize(toEye))), 0.0, 1.0);
  float squared = away * away;
  return mix(clamp(f0, 0.0, 1.0), 1.0, squared * squared * away);
}

/**
 * Fresnel, dielectric: how much glass, water or paint reflects at an angle, exactly.
 * @kind fresnelDielectric 1
 * @family Light
 * @words reflectance, glass, water, ior, glancing
 * @source Fresnel 1823; Born, Wolf 1999, "Principles of Optics", section 1.5.2, unpolarised light from air
 * @inlet ior number "Index of refraction" = 1.5 in 1..3
 * @inlet normal normal "Normal" = surface normal
 * @inlet toEye directionToEye "View direction" = surface viewDirection
 * @outlet result fraction "Reflectance": 0…1.
 */
float fresnelDielectric(float ior, vec3 normal, vec3 toEye) {
  float cosine = clamp(abs(dot(safeNormalize(normal), safeNormalize(toEye))), 0.0, 1.0);
  float index = clamp(ior, 1.0, 1.0e3);
  float inside = sqrt(max(index * index - 1.0 + cosine * cosine, 1e-12));
  float across = (cosine - inside) / (cosine + inside);
  float along = (index * index * cosine - inside) / (index * index * cosine + inside);
  return clamp(0.5 * (across * across + along * along), 0.0, 1.0);
}

/**
 * Fresnel, conductor: how much a metal reflects at an angle, exactly, channel by channel.
 * @kind fresnelConductor 1
 * @family Light
 * @words reflectance, metal, gold, copper, extinction
 * @source Born, Wolf 1999, "Principles of Optics", section 14.2, unpolarised light from air
 * @inlet eta vector "Index of refraction" = 0.18 0.42 1.37: of red, green and blue; those of gold by default.
 * @inlet extinction vector "Extinction" = 3.42 2.35 1.77: how quickly light dies in it.
 * @inlet normal normal "Normal" = surface normal
 * @inlet toEye directionToEye "View direction" = surface viewDirection
 * @outlet result colour "Reflectance": 0…1.
 */
vec3 fresnelConductor(vec3 eta, vec3 extinction, vec3 normal, vec3 toEye) {
  float cosine = clamp(abs(dot(safeNormalize(normal), safeNormalize(toEye))), 1e-4, 1.0);
  float sine2 = 1.0 - cosine * cosine;
  vec3 n = clamp(abs(eta), 1e-4, 1.0e3);
  vec3 k = clamp(abs(extinction), 0.0, 1.0e3);
  vec3 base = n * n - k * k - sine2;
  vec3 both = sqrt(base * base + 4.0 * n * n * k * k);
  vec3 a = sqrt(max(0.5 * (both + base), 0.0));
  vec3 across = (both + cosine * cosine - 2.0 * cosine * a) / (both + cosine * cosine + 2.0 * cosine * a);
  vec3 high = cosine * cosine * both + sine2 * sine2;
  vec3 cross = 2.0 * cosine * sine2 * a;
  return clamp(0.5 * across * (1.0 + (high - cross) / max(high + cross, 1e-12)), 0.0, 1.0);
}
