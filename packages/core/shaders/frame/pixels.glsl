// The pixel of the whole picture that is drawn here, also where only a part of it is drawn, or elsewhere in the target.
vec2 pixelHere() {
  return gl_FragCoord.xy + pictureCorner.xy;
}
