out vec4 pixel;

// What stands beside something that is looked at: plain grey. Where places are asked for, it says that it is not that.
void main() {
  float shade = 0.05 + 0.12 * clamp(dot(surfaceNormal(), surfaceToEye()), 0.0, 1.0);
  pixel = vec4(vec3(shade), -1.0);
}
