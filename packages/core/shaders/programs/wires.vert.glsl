in vec3 meshPosition;
in vec3 meshNormal;
in vec4 meshTangent;
in vec2 meshUv0;
in vec2 meshUv1;
in vec4 copyRowX;
in vec4 copyRowY;
in vec4 copyRowZ;
in float copyIndex;

// Edges of triangles, a trace nearer to the eye than the surface that they belong to.
void main() {
  vec3 world = placedPoint(meshPosition, copyRowX, copyRowY, copyRowZ);
  vec3 toEye = towardsEye(world);
  float trace = 0.002 * (eyePosition.w > 0.5 ? length(eyePosition.xyz - world) : 2.0);
  gl_Position = withDepthNearer(clipFromWorld * vec4(world, 1.0), world, toEye, trace + partDepth.x);
}
