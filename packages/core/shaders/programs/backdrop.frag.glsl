uniform Backdrop {
  vec4 backdropBelow;   // scene-linear, at the lower edge of the picture
  vec4 backdropAbove;   // at the upper edge
  vec4 backdropSize;    // xy: width and height of the whole picture in pixels; zw: parts of an image that it is wide and high
  vec4 backdropCorner;  // xy: of what is drawn now in the whole picture, pixels
};

out vec4 pixel;

void main() {
  float down = (gl_FragCoord.y + backdropCorner.y) / backdropSize.y;
  pixel = vec4(mix(backdropAbove.rgb, backdropBelow.rgb, down), 1.0);
}
