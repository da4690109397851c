out vec4 pixel;

// Supplied by the material.
float paintOpacity();

// How far the scene is from the plane of the eye, for surfaces that look at what is behind them, and its normal in view space.
void main() {
  vec4 seen = seenWhole(vec3(depthHere()), paintOpacity());
  pixel = vec4(seen.x, mat3(viewFromWorld) * surfaceNormal());
}
