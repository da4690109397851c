// What every vertex program of a mesh begins with: the vertex of a copy in world space, shaped where its material says so.
in vec3 meshPosition;
in vec3 meshNormal;
in vec4 meshTangent;
in vec2 meshUv0;
in vec2 meshUv1;
in vec4 meshColour;
// How UV and normal change per metre of object space: UV along the tangent and across it; of the normal its part along
// the tangent going along, across it going across, and the one that both share; in w, how far apart vertices lie in UV.
in vec4 meshUvSlope;
in vec4 meshBend;
// Shared by all vertices in one place, object space.
in vec3 meshWelded;
// One UV for all vertices in one place.
in vec2 meshSharedUv;
// Rows of worldFromObject for this copy, and its number.
in vec4 instanceRowX;
in vec4 instanceRowY;
in vec4 instanceRowZ;
in float copyIndex;

out vec3 worldPosition;
out vec3 worldNormal;
out vec4 worldTangent;
out vec3 worldWelded;
out vec4 placeRowX;
out vec4 placeRowY;
out vec4 placeRowZ;
out vec4 vertexTint;
out vec2 meshUv;
out vec2 meshSecondUv;
out vec3 meshPlace;
out float copyNumber;

// Supplied by the material: how far its shape moves this vertex, world space, metres; and what it carries to pixels.
vec3 shapeOffset();
void carryToPixels();

// Stand in their place where a material has no shape.
void keepVertex() {
}
void carryNothing() {
}

// Moves the vertex, and turns its normal and tangent: the same offset is asked for a small step along the surface on two
// ways, with all that is known of the point taken along. (The normal of a displaced surface by its partial derivatives:
// Blinn 1978, "Simulation of wrinkled surfaces", SIGGRAPH.)
void shapeVertex() {
  vec3 world = worldPosition;
  vec3 normal = safeNormalize(worldNormal);
  vec3 welded = safeNormalize(worldWelded);
  vec3 objectAcross = cross(meshNormal, meshTangent.xyz) * meshTangent.w;
  vec3 along = worldTangent.xyz;
  vec3 across = vec3(dot(instanceRowX.xyz, objectAcross), dot(instanceRowY.xyz, objectAcross), dot(instanceRowZ.xyz, objectAcross));
  float alongScale = max(length(along), 1e-6);
  float acrossScale = max(length(across), 1e-6);
  along = along / alongScale;
  across = across / acrossScale;
  vec2 uv = meshUv;
  vec3 place = meshPlace;
  vec3 here = shapeOffset();
  // Along a seam of the UVs all vertices in one place go by one of them, so that the surface stays shut.
  vec3 moved = here;
  if (length(meshSharedUv - uv) > 1e-6) {
    meshUv = meshSharedUv;
    moved = shapeOffset();
  }

  float pace = 1e-3 * max(length(vec3(instanceRowX.x, instanceRowY.x, instanceRowZ.x)), 1e-3);
  float stride = pace / alongScale;
  worldPosition = world + along * pace;
  meshPlace = place + meshTangent.xyz * placeScale.xyz * stride;
  meshUv = uv + meshUvSlope.xy * stride;
  vec3 turn = (along * meshBend.x + across * meshBend.z) * stride;
  worldNormal = normal + turn;
  worldWelded = welded + turn;
  vec3 first = along * pace + shapeOffset() - here;

  stride = pace / acrossScale;
  worldPosition = world + across * pace;
  meshPlace = place + objectAcross * placeScale.xyz * stride;
  meshUv = uv + meshUvSlope.zw * stride;
  turn = (along * meshBend.z + across * meshBend.y) * stride;
  worldNormal = normal + turn;
  worldWelded = welded + turn;
  vec3 second = across * pace + shapeOffset() - here;

  vec3 turned = cross(first, second);
  float same = dot(cross(along, across), normal) < 0.0 ? -1.0 : 1.0;
  worldPosition = world + moved;
  // Where the surface folds onto a line there is no normal; the old one stays.
  worldNormal = dot(turned, turned) > 1e-6 * pace * pace * pace * pace ? turned * (same / (pace * pace)) : normal;
  worldTangent = vec4(first / pace, worldTangent.w);
  worldWelded = welded;
  meshPlace = place;
  meshUv = uv;
}

void placeVertex() {
  worldPosition = placedPoint(meshPosition, instanceRowX, instanceRowY, instanceRowZ);
  worldNormal = placedNormal(meshNormal, instanceRowX.xyz, instanceRowY.xyz, instanceRowZ.xyz);
  worldTangent = placedTangent(meshTangent, instanceRowX.xyz, instanceRowY.xyz, instanceRowZ.xyz);
  worldWelded = placedNormal(meshWelded, instanceRowX.xyz, instanceRowY.xyz, instanceRowZ.xyz);
  placeRowX = instanceRowX;
  placeRowY = instanceRowY;
  placeRowZ = instanceRowZ;
  vertexTint = meshColour;
  meshUv = meshUv0;
  meshSecondUv = meshUv1;
  meshPlace = (meshPosition - placeOrigin.xyz) * placeScale.xyz;
  copyNumber = copyIndex;
  carryToPixels();
  shapeVertex();
}
