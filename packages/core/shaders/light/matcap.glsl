// Where a normal lies on a picture of a sphere that is lit as seen from the eye; v runs downwards. The axes follow the
// line of sight to this point, so that a plane seen at the edge of the picture does not slide.
vec2 matcapPlace(vec3 normal, vec3 toEye) {
  vec3 seen = (viewFromWorld * vec4(toEye, 0.0)).xyz;
  vec3 facing = (viewFromWorld * vec4(normal, 0.0)).xyz;
  vec3 right = safeNormalize(vec3(seen.z, 0.0, -seen.x));
  vec3 up = cross(seen, right);
  // Not the rim itself: pictures of spheres end there.
  return vec2(0.5 + 0.495 * dot(right, facing), 0.5 - 0.495 * dot(up, facing));
}

/**
 * Matcap: shading and surface in one picture of a sphere, looked up by the normal in view space.
 * @kind matcap 1
 * @family Light
 * @words material capture, lit sphere, spherical map, sculpt, clay, wax
 * @source Sloan, Martin, Gooch, Gooch 2001, "The lit sphere", Graphics Interface, section 3
 * @inlet image image "Image"
 * @inlet tint colour "Tint" = 1 1 1
 * @inlet turn number "Rotation" = 0 unit radians: turns the picture, and its light with it, counter-clockwise.
 * @inlet normal normal "Normal" = surface normal
 * @inlet toEye directionToEye "View direction" = surface viewDirection
 * @outlet result light "Light"
 */
Lit matcap(sampler2D image, vec3 tint, float turn, vec3 normal, vec3 toEye) {
  vec2 place = imagePlace(matcapPlace(normal, toEye), vec2(1.0), vec2(0.0), turn);
  return emitted(textureLod(image, place, 0.0).rgb * tint);
}

/**
 * Normal as colour: a colour from where the surface faces, red to the right, green up, blue towards you.
 * @kind normalAsColour 1
 * @family Light
 * @words normal map, facing, rainbow, debug, view space
 * @source Each component of the view-space normal brought from −1…1 to 0…1
 * @inlet normal normal "Normal" = surface normal
 * @outlet result colour "Colour"
 */
vec3 normalAsColour(vec3 normal) {
  return (viewFromWorld * vec4(normal, 0.0)).xyz * 0.5 + 0.5;
}
