out vec4 pixel;

// Supplied by the material.
float paintOpacity();

// How far the scene is from the plane of the eye, for surfaces that look at what is behind them.
void main() {
  pixel = seenWhole(vec3(depthHere()), paintOpacity());
}
