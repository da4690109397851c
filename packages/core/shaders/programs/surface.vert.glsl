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
  vec4 position = vec4(meshPosition, 1.0);
  vec3 world = vec3(dot(copyRowX, position), dot(copyRowY, position), dot(copyRowZ, position));
  // Normals go by the cofactor matrix, which also holds for uneven scale; a mirror turns it round.
  vec3 rowX = cross(copyRowY.xyz, copyRowZ.xyz);
  vec3 rowY = cross(copyRowZ.xyz, copyRowX.xyz);
  vec3 rowZ = cross(copyRowX.xyz, copyRowY.xyz);
  float mirrored = dot(copyRowX.xyz, rowX) < 0.0 ? -1.0 : 1.0;
  vec4 clip = clipFromWorld * vec4(world, 1.0);
  // Depth as if the part lay nearer to the eye, so that it is not hidden by what it lies on. Where that would be
  // behind the eye, the true depth stays.
  vec3 toEye = safeNormalize(eyePosition.xyz - world * eyePosition.w);
  vec4 nearer = clipFromWorld * vec4(world + toEye * partDepth.x, 1.0);
  clip.z = nearer.w > 0.001 && nearer.z > 0.0 ? nearer.z / nearer.w * clip.w : clip.z;
  gl_Position = clip;
  worldPosition = world;
  worldNormal = vec3(dot(rowX, meshNormal), dot(rowY, meshNormal), dot(rowZ, meshNormal)) * mirrored;
  vec3 tangent = meshTangent.xyz;
  worldTangent = vec4(dot(copyRowX.xyz, tangent), dot(copyRowY.xyz, tangent), dot(copyRowZ.xyz, tangent), meshTangent.w * mirrored);
  meshUv = meshUv0;
  meshSecondUv = meshUv1;
  meshPlace = (meshPosition - placeOrigin.xyz) * placeScale.xyz;
  copyNumber = copyIndex;
}
