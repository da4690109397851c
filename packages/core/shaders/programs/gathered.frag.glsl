uniform sampler2D gatheredLight;
uniform sampler2D gatheredCover;

uniform Gathered {
  vec4 gatheredSize;   // xy: 1 / width and height of the target in pixels
};

out vec4 pixel;

// The mean of all that is laid over in no order, over what is left of what is behind it.
void main() {
  vec2 at = gl_FragCoord.xy * gatheredSize.xy;
  vec4 cover = textureLod(gatheredCover, at, 0.0);
  float hidden = 1.0 - cover.a;
  pixel = vec4(textureLod(gatheredLight, at, 0.0).rgb / max(cover.r, 1e-5) * hidden, hidden);
}
