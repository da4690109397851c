out vec4 pixel;

// Supplied by the material.
Lit paintSurface();
vec3 paintEmission();

void main() {
  pixel = vec4(throughFog(surfaceLight(paintSurface()) + paintEmission()), 1.0);
}
