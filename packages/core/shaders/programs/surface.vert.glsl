void main() {
  placeVertex();
  // A part that lies on another one is not hidden by it.
  gl_Position = withDepthNearer(clipFromWorld * vec4(worldPosition, 1.0), worldPosition, towardsEye(worldPosition), partDepth.x);
}
