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
  vec4 position = vec4(meshPosition, 1.0);
  vec3 world = vec3(dot(copyRowX, position), dot(copyRowY, position), dot(copyRowZ, position));
  vec3 rowX = cross(copyRowY.xyz, copyRowZ.xyz);
  vec3 rowY = cross(copyRowZ.xyz, copyRowX.xyz);
  vec3 rowZ = cross(copyRowX.xyz, copyRowY.xyz);
  float mirrored = dot(copyRowX.xyz, rowX) < 0.0 ? -1.0 : 1.0;
  vec3 way = safeNormalize(vec3(dot(rowX, hullWay), dot(rowY, hullWay), dot(rowZ, hullWay)) * mirrored) * length(hullWay);
  vec3 toEye = safeNormalize(eyePosition.xyz - world * eyePosition.w);
  vec3 across = way - toEye * dot(way, toEye);
  vec4 clip = clipFromWorld * vec4(world + across * partOutline.x, 1.0);
  vec4 seen = viewFromWorld * vec4(across, 0.0);
  clip.xy += seen.xy * (partOutline.y * 2.0 / targetSize.xy * clip.w);
  vec4 offset = clipFromWorld * vec4(world + toEye * (partDepth.x - partOutline.z), 1.0);
  clip.z = offset.w > 0.001 && offset.z > 0.0 ? offset.z / offset.w * clip.w : clip.z;
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
