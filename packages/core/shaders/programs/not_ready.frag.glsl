out vec4 pixel;

// A material that never had a picture looks like a drawing: neutral grey with diagonal hatching.
void main() {
  vec3 normal = surfaceNormal();
  float lines = fract((pixelHere().x + pixelHere().y) / 12.0);
  float hatch = smoothStepBetween(0.36, 0.44, abs(lines - 0.5));
  float shade = 0.16 + 0.16 * clamp(dot(normal, surfaceToEye()), 0.0, 1.0);
  pixel = vec4(vec3(mix(shade, shade * 0.45, hatch)), 1.0);
}
