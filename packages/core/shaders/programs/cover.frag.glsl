out vec4 pixel;

// Supplied by the material.
float paintOpacity();

// What is laid over in no order: the sum of the weights, and what is left of what is behind.
void main() {
  float cover = clamp(paintOpacity(), 0.0, 1.0);
  pixel = vec4(cover * nearWeight(depthHere()), 0.0, 0.0, cover);
}
