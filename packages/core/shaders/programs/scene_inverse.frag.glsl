uniform sampler2D farScene;

uniform SceneInverse {
  vec4 inverseSize;   // xy: 1 / width and height of the target in pixels
};

out vec4 pixel;

// Puts one by the depth into the alpha of a picture that is whole, and leaves its colours: they are added to, and of alpha is
// kept what one less the pixel's leaves.
void main() {
  float depth = textureLod(farScene, gl_FragCoord.xy * inverseSize.xy, 0.0).x;
  pixel = vec4(0.0, 0.0, 0.0, 1.0 - 1.0 / max(depth, 1e-3));
}
