/**
 * Occlude light: darkens ambient light and that of the environment by an occlusion value; lamps still reach the surface.
 * @kind occludeLight 1
 * @family Light
 * @words ao, ambient occlusion, cavity, baked, crevice
 * @source glTF 2.0 specification, section 3.9.3 (occlusion): indirect light only
 * @inlet light light "Light" = 0
 * @inlet occlusion fraction "Occlusion" = 1 in 0..1: 1 is open, 0 is wholly hidden.
 * @outlet result light "Light"
 */
Lit occludedLight(Lit light, float occlusion) {
  float open = clamp(occlusion, 0.0, 1.0);
  Lit left = light;
  left.ambient = light.ambient * open;
  left.reflection = light.reflection * open;
  return left;
}
