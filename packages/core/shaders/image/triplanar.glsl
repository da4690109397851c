// How much each of three pictures, seen along x, y and z, counts: Geiss 2007, "Generating complex procedural terrains using
// the GPU", GPU Gems 3, chapter 1, section 1.5.
vec3 triplanarWeights(vec3 normal, float sharpness) {
  vec3 along = pow(max(abs(normal), vec3(1e-4)), vec3(clamp(sharpness, 1.0, 64.0)));
  return along / (along.x + along.y + along.z);
}

// Where a point is on the picture that is seen along each axis: u to the right and v downwards as seen from outside.
vec2 triplanarPlaceX(vec3 at, vec3 normal) {
  return vec2(normal.x < 0.0 ? at.z : -at.z, -at.y);
}

vec2 triplanarPlaceY(vec3 at, vec3 normal) {
  return vec2(at.x, normal.y < 0.0 ? -at.z : at.z);
}

vec2 triplanarPlaceZ(vec3 at, vec3 normal) {
  return vec2(normal.z < 0.0 ? -at.x : at.x, -at.y);
}

vec3 triplanarPosition(bool onObject) {
  return onObject ? intoObject(worldPosition - originOfObject()) : worldPosition;
}

vec3 triplanarNormalHere(bool onObject) {
  return onObject ? normalInSpaces().object : surfaceNormal();
}

/**
 * Triplanar image: a picture laid on from left, top and front at once, for meshes without good UVs.
 * @kind triplanar 1
 * @family Images
 * @words triplanar, box projection, cube projection, world space, without uv, terrain, tri-planar, image from three sides
 * @source Geiss 2007, "Generating complex procedural terrains using the GPU", GPU Gems 3, chapter 1
 * @inlet image image "Image"
 * @inlet size number "Size" = 1 in 0.01..10 unit m: of one picture.
 * @inlet sharpness number "Sharpness" = 6 in 1..32: of the borders between the three; 1 blends widely.
 * @inlet offset vector "Offset" = 0 0 0 unit m
 * @feature onObject "object space": the picture goes along when the mesh moves; without, it stays in the room.
 * @outlet colour colour "Colour": scene-linear for a colour image, as stored for data.
 * @outlet alpha fraction "Alpha"
 * @outlet red number "Red"
 * @outlet green number "Green"
 * @outlet blue number "Blue"
 */
ImageSample triplanarImage(sampler2D image, float size, float sharpness, vec3 offset, bool onObject) {
  vec3 normal = triplanarNormalHere(onObject);
  vec3 weights = triplanarWeights(normal, sharpness);
  vec3 at = (triplanarPosition(onObject) + offset) / max(abs(size), 1e-4);
  vec4 texel = texture(image, triplanarPlaceX(at, normal)) * weights.x
    + texture(image, triplanarPlaceY(at, normal)) * weights.y
    + texture(image, triplanarPlaceZ(at, normal)) * weights.z;
  return ImageSample(texel.rgb, texel.a, texel.r, texel.g, texel.b);
}

// A map's two slopes laid on along one axis: what leans the normal is added to it, and what stands up keeps its share of that
// axis (Barré-Brisebois, Hill 2012, "Blending in detail", whiteout blending).
vec3 triplanarLean(vec3 map, vec2 strength, vec3 right, vec3 up, vec3 axis, vec3 normal) {
  vec3 bent = (clamp(map, 0.0, 1.0) * 2.0 - 1.0) * vec3(strength, 1.0);
  return right * bent.x + up * bent.y + normal + axis * (dot(axis, normal) * (max(bent.z, 0.0) - 1.0));
}

/**
 * Triplanar normal map: a normal map laid on from left, top and front at once, its bumps bending each the right way.
 * @kind triplanarNormal 1
 * @family Normals
 * @words triplanar, box projection, bump, world space, without uv, terrain, normal map from three sides
 * @source Geiss 2007, GPU Gems 3, chapter 1; whiteout blending: Barré-Brisebois, Hill 2012, "Blending in detail"
 * @inlet image image "Normal map": read as data, green up.
 * @inlet size number "Size" = 1 in 0.01..10 unit m: of one picture.
 * @inlet sharpness number "Sharpness" = 6 in 1..32
 * @inlet offset vector "Offset" = 0 0 0 unit m
 * @inlet strengthX number "Strength sideways" = 1 in -2..2
 * @inlet strengthY number "Strength upwards" = 1 in -2..2
 * @feature onObject "object space": the picture goes along when the mesh moves; without, it stays in the room.
 * @outlet result normal "Normal": unit length, world space.
 */
vec3 triplanarNormal(sampler2D image, float size, float sharpness, vec3 offset, float strengthX, float strengthY, bool onObject) {
  vec3 normal = triplanarNormalHere(onObject);
  vec3 weights = triplanarWeights(normal, sharpness);
  vec3 at = (triplanarPosition(onObject) + offset) / max(abs(size), 1e-4);
  vec2 strength = clamp(vec2(strengthX, strengthY), -16.0, 16.0);
  vec3 side = vec3(normal.x < 0.0 ? -1.0 : 1.0, normal.y < 0.0 ? -1.0 : 1.0, normal.z < 0.0 ? -1.0 : 1.0);
  vec3 x = triplanarLean(texture(image, triplanarPlaceX(at, normal)).xyz, strength, vec3(0.0, 0.0, -side.x), vec3(0.0, 1.0, 0.0), vec3(1.0, 0.0, 0.0), normal);
  vec3 y = triplanarLean(texture(image, triplanarPlaceY(at, normal)).xyz, strength, vec3(1.0, 0.0, 0.0), vec3(0.0, 0.0, -side.y), vec3(0.0, 1.0, 0.0), normal);
  vec3 z = triplanarLean(texture(image, triplanarPlaceZ(at, normal)).xyz, strength, vec3(side.z, 0.0, 0.0), vec3(0.0, 1.0, 0.0), vec3(0.0, 0.0, 1.0), normal);
  vec3 sum = x * weights.x + y * weights.y + z * weights.z;
  if (dot(sum, sum) < 1e-12) {
    return surfaceNormal();
  }
  return safeNormalize(onObject ? placedNormal(sum, placeRowX.xyz, placeRowY.xyz, placeRowZ.xyz) : sum);
}
