// Edges of triangles, a trace nearer to the eye than the surface that they belong to.
void main() {
  placeVertex();
  vec3 world = worldPosition;
  float trace = 0.002 * (eyePosition.w > 0.5 ? length(eyePosition.xyz - world) : 2.0);
  gl_Position = withDepthNearer(clipFromWorld * vec4(world, 1.0), world, towardsEye(world), trace + partDepth.x);
}
