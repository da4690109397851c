/**
 * Rim: a glow along the outline, where the surface turns away from you.
 * @kind rim 1
 * @family Light
 * @words edge, fresnel, outline, backlight, silhouette, halo
 * @source (1 − n·v) to a power, after the angular factor of Schlick 1994, "An inexpensive BRDF model", equation 15
 * @inlet colour colour "Colour" = 1 1 1
 * @inlet strength number "Strength" = 1 in 0..4
 * @inlet power number "Power" = 3 in 0.5..10: higher is thinner.
 * @inlet normal normal "Normal" = surface normal
 * @inlet toEye directionToEye "View direction" = surface viewDirection
 * @outlet result light "Light"
 */
Lit rim(vec3 colour, float strength, float power, vec3 normal, vec3 toEye) {
  float away = 1.0 - clamp(dot(normal, toEye), 0.0, 1.0);
  return emitted(colour * (strength * powerOf(away, max(power, 1e-3))));
}
