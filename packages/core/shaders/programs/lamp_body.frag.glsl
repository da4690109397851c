out vec4 pixel;

// The glowing ball that stands for a lamp: as bright as its light, whichever way it is seen. Its copy bears the light's number.
void main() {
  vec3 colour = lightColour[int(copyNumber + 0.5)].rgb;
  pixel = vec4(colour * clamp(moreWeights.y, 0.0, 1.0), 1.0);
}
