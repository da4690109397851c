out vec4 pixel;

// A floor of which nothing is seen but what it does not get: black, as much as stands in the way of lights and of light from
// all around, on a surface that is white.
void main() {
  vec3 normal = surfaceNormal();
  float around = luminanceOf(ambientFrom(normal));
  float all = around;
  float free = around * mix(1.0, openHere(), clamp(moreWeights.w, 0.0, 1.0));
  int count = lightsInUse();
  for (int i = 0; i < count; i++) {
    LightHere light = lightHere(i);
    float strength = luminanceOf(light.diffuse) * max(dot(normal, light.toLight), 0.0);
    all += strength;
    free += strength * mix(1.0, light.shadow, clamp(moreWeights.z, 0.0, 1.0));
  }
  pixel = vec4(0.0, 0.0, 0.0, clamp(1.0 - free / max(all, 1e-6), 0.0, 1.0));
}
