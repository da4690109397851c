out vec4 pixel;

// What lines are found by: the normal's two numbers, the depth, and the part's number (negative without lines). Depth is
// kept so that it is linear across a plane in the picture: its inverse under perspective, itself without.
void main() {
  float away = -(viewFromWorld * vec4(worldPosition, 1.0)).z;
  pixel = vec4(octahedral(surfaceNormal()), eyePosition.w > 0.5 ? 1.0 / max(away, 1e-3) : away, partOutline.w);
}
