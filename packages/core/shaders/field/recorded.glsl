// A field is traced once for a picture, into a record: at each pixel how far back from the far side of its box it was met, its
// normal, and whose point it is. What its parts wear is drawn over their boxes, and reads there what a mesh's vertices hand on.
uniform sampler2D fieldRecord;

// Bears the names of what vertices hand on.
struct RecordedPoint {
  vec3 worldPosition;
  vec3 worldNormal;
  vec4 worldTangent;
  vec3 worldWelded;
  vec2 meshUv;
  vec2 meshSecondUv;
  vec3 meshPlace;
  vec4 vertexTint;
  float depth;
  bool there;
};

const float MOST_REGIONS = 64.0;
const float MOST_FIELD_COPIES = 400.0;

// Above 0, and of its own for each part of each copy of each field.
float recordNumber(float part) {
  return (partField.w * MOST_FIELD_COPIES + surfaceCopyIndex()) * MOST_REGIONS + part + 1.0;
}

// Coordinates of a solid's sides as those of a cube: along each side metres from its middle, v downwards. In xy the UV, in z
// which side: the axis it faces, from 1, with its sign.
vec3 sideOfBox(vec3 position, vec3 normal) {
  vec3 size = abs(normal);
  if (size.y >= size.x && size.y >= size.z) {
    return vec3(position.x, normal.y < 0.0 ? -position.z : position.z, normal.y < 0.0 ? -2.0 : 2.0);
  }
  if (size.x >= size.z) {
    return vec3(normal.x < 0.0 ? position.z : -position.z, -position.y, normal.x < 0.0 ? -1.0 : 1.0);
  }
  return vec3(normal.z < 0.0 ? -position.x : position.x, -position.y, normal.z < 0.0 ? -3.0 : 3.0);
}

vec3 rightOfSide(float side) {
  return abs(side) > 2.5 ? vec3(sign(side), 0.0, 0.0) : abs(side) > 1.5 ? vec3(1.0, 0.0, 0.0) : vec3(0.0, 0.0, -sign(side));
}

RecordedPoint recordedPoint() {
  vec4 seen = clipFromWorld * vec4(boxPoint, 1.0);
  vec2 at = vec2(seen.x, -seen.y) / seen.w * 0.5 + 0.5;
  vec2 size = vec2(textureSize(fieldRecord, 0));
  vec4 found = texelFetch(fieldRecord, ivec2(clamp(at * size, vec2(0.0), size - 1.0)), 0);
  vec3 world = boxPoint - sightThrough(clipFromWorld, boxPoint) * found.x;
  vec3 normal = fromOctahedral(found.yz);
  vec3 position = unplacedPoint(world, placeRowX, placeRowY, placeRowZ);
  vec3 facing = placeRowX.xyz * normal.x + placeRowY.xyz * normal.y + placeRowZ.xyz * normal.z;
  vec3 side = sideOfBox(position, facing);
  // Along the side, as far as the surface goes there.
  vec3 along = rightOfSide(side.z);
  vec3 tangent = placedTangent(vec4(along, 1.0), placeRowX.xyz, placeRowY.xyz, placeRowZ.xyz).xyz;
  vec3 level = tangent - normal * dot(tangent, normal);
  float mirrored = dot(placeRowX.xyz, cross(placeRowY.xyz, placeRowZ.xyz)) < 0.0 ? -1.0 : 1.0;
  vec3 place = (position - placeOrigin.xyz) * placeScale.xyz;
  vec4 clip = clipFromWorld * vec4(world, 1.0);
  bool mine = abs(found.w - recordNumber(partDepth.z)) < 0.5;
  return RecordedPoint(world, normal, vec4(level, mirrored), normal, side.xy, side.xy, place, vec4(place, 1.0), clamp(clip.z / clip.w, 0.0, 1.0), mine);
}
