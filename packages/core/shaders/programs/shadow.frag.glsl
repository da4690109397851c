out vec4 pixel;

// Supplied by the material.
float paintOpacity();

// Only depth is kept.
void main() {
  pixel = seenWhole(vec3(0.0), paintOpacity());
}
