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
  vec3 toEye = eyePosition.w > 0.5 ? eyePosition.xyz - world : eyePosition.xyz * 2.0;
  vec4 clip = clipFromWorld * vec4(world + toEye * 0.002, 1.0);
  gl_Position = clipFromWorld * vec4(world, 1.0);
  gl_Position.z = clip.w > 0.001 ? clip.z / clip.w * gl_Position.w : gl_Position.z;
}
