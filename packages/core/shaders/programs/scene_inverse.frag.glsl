uniform sampler2D farScene;

uniform SceneInverse {
  vec4 inverseNearest;   // x: the smallest depth, metres
};

out vec4 pixel;

// Puts one by the depth into the alpha of a picture that is whole, and leaves its colours: they are added to, and of alpha is
// kept what one less the pixel's leaves.
void main() {
  float depth = texelFetch(farScene, ivec2(gl_FragCoord.xy), 0).x;
  pixel = vec4(0.0, 0.0, 0.0, 1.0 - 1.0 / max(depth, inverseNearest.x));
}
