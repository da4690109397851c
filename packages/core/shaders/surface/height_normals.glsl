/**
 * Normal from height map: bends the normal by the slopes of a height map, smoothly, without a normal map.
 * @kind normalFromHeightMap 1
 * @family Normals
 * @words bump, relief, height, displacement, grey, convert
 * @source Mikkelsen 2010, "Bump mapping unparametrized surfaces on the GPU", JGT 15(1), with slopes by central differences of the map
 * @inlet image image "Height map": its red is the height, read as data.
 * @inlet uv uv "UV" = surface uv
 * @inlet repeat vector "Repeat" = 1 1: how often the picture stands side by side, and one above the other
 * @inlet depth number "Depth" = 0.05 in -0.5..0.5 unit m: from black to white; below 0 white is deep.
 * @outlet result normal "Normal": unit length, world space.
 */
vec3 normalFromHeightMap(sampler2D image, vec2 uv, vec2 repeat, float depth) {
  vec3 normal = surfaceNormal();
  vec2 place = uv * repeat;
  vec2 alongX = dFdx(place);
  vec2 alongY = dFdy(place);
  // A texel apart, or half a pixel where that is more: what is read twice is also what the mip level can tell apart.
  vec2 apart = max(1.0 / vec2(textureSize(image, 0)), 0.5 * (abs(alongX) + abs(alongY)));
  float rise = (texture(image, place + vec2(apart.x, 0.0)).r - texture(image, place - vec2(apart.x, 0.0)).r) / (2.0 * apart.x);
  float fall = (texture(image, place + vec2(0.0, apart.y)).r - texture(image, place - vec2(0.0, apart.y)).r) / (2.0 * apart.y);
  float metres = clamp(depth, -1.0e3, 1.0e3);
  vec2 slope = vec2(rise * alongX.x + fall * alongX.y, rise * alongY.x + fall * alongY.y) * metres;
  vec3 acrossX = dFdx(worldPosition);
  vec3 acrossY = dFdy(worldPosition);
  vec3 along = cross(acrossY, normal);
  vec3 up = cross(normal, acrossX);
  float area = dot(acrossX, along);
  vec3 result = normal * abs(area) - (along * slope.x + up * slope.y) * (area < 0.0 ? -1.0 : 1.0);
  return dot(result, result) < 1e-24 ? normal : normalize(result);
}
