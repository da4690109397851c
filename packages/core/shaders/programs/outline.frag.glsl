out vec4 pixel;

// Supplied by the material.
vec3 paintOutline();

// The outline's colour. Like light of its own, it counts as emission where the picture is taken apart.
void main() {
  pixel = vec4(throughFog(paintOutline() * moreWeights.y), 1.0);
}
