uniform Backdrop {
  vec4 backdropBelow;   // scene-linear, at the lower edge of the picture
  vec4 backdropAbove;   // at the upper edge
  vec4 backdropSize;    // xy: width and height of the target in pixels; zw: parts of an image that the picture is wide and high
};

out vec4 pixel;

void main() {
  float down = gl_FragCoord.y / backdropSize.y;
  pixel = vec4(mix(backdropAbove.rgb, backdropBelow.rgb, down), 1.0);
}
