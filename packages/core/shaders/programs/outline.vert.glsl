in vec3 meshPosition;
in vec3 meshNormal;
in vec4 meshTangent;
in vec2 meshUv0;
in vec2 meshUv1;
// Which way this corner goes when the mesh grows by one: the same for all corners in one place.
in vec3 hullWay;
in vec4 copyRowX;
in vec4 copyRowY;
in vec4 copyRowZ;
in float copyIndex;

out vec3 worldPosition;
out vec3 worldNormal;
out vec4 worldTangent;
out vec2 meshUv;
out vec2 meshSecondUv;
out vec3 meshPlace;
out float copyNumber;

// The mesh grown by the outline's width across the line of sight. Only what lies behind the surface is seen of it.
void main() {
  vec3 world = placedPoint(meshPosition, copyRowX, copyRowY, copyRowZ);
  vec3 way = safeNormalize(placedNormal(hullWay, copyRowX.xyz, copyRowY.xyz, copyRowZ.xyz)) * length(hullWay);
  vec3 toEye = towardsEye(world);
  vec3 across = way - toEye * dot(way, toEye);
  vec4 clip = clipFromWorld * vec4(world + across * partOutline.x, 1.0);
  vec4 seen = viewFromWorld * vec4(across, 0.0);
  clip.xy += seen.xy * (partOutline.y * 2.0 / targetSize.xy * clip.w);
  gl_Position = withDepthNearer(clip, world, toEye, partDepth.x - partOutline.z);
  worldPosition = world;
  worldNormal = placedNormal(meshNormal, copyRowX.xyz, copyRowY.xyz, copyRowZ.xyz);
  worldTangent = placedTangent(meshTangent, copyRowX.xyz, copyRowY.xyz, copyRowZ.xyz);
  meshUv = meshUv0;
  meshSecondUv = meshUv1;
  meshPlace = (meshPosition - placeOrigin.xyz) * placeScale.xyz;
  copyNumber = copyIndex;
}
