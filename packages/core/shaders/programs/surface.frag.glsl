out vec4 pixel;

// Supplied by the material.
Lit paintSurface();
vec3 paintEmission();
float paintOpacity();

void main() {
  pixel = seenWhole(throughFog(surfaceLight(paintSurface()) + paintEmission()), paintOpacity());
}
