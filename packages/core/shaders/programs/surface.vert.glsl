in vec3 meshPosition;
in vec3 meshNormal;
in vec4 meshTangent;
in vec2 meshUv0;
in vec2 meshUv1;
// Rows of worldFromObject for this copy, and its number.
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

void main() {
  vec3 world = placedPoint(meshPosition, copyRowX, copyRowY, copyRowZ);
  // A part that lies on another one is not hidden by it.
  gl_Position = withDepthNearer(clipFromWorld * vec4(world, 1.0), world, towardsEye(world), partDepth.x);
  worldPosition = world;
  worldNormal = placedNormal(meshNormal, copyRowX.xyz, copyRowY.xyz, copyRowZ.xyz);
  worldTangent = placedTangent(meshTangent, copyRowX.xyz, copyRowY.xyz, copyRowZ.xyz);
  meshUv = meshUv0;
  meshSecondUv = meshUv1;
  meshPlace = (meshPosition - placeOrigin.xyz) * placeScale.xyz;
  copyNumber = copyIndex;
}
