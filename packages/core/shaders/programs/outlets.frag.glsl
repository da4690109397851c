out vec4 pixel;

// Which outlet is looked at, and how.
uniform Peek {
  vec4 peekOutlet;   // x: its index, negative for the place itself; y: 0 the value as it is, 1 as a colour, 2 on a scale, 3 as a direction
  vec4 peekScale;    // x, y: the values at both ends of the scale; z: which component, 4 for the length
};

// Supplied by the material.
vec4 paintOutlet(int outlet);

bool isNumber(vec4 value) {
  return !(any(isnan(value)) || any(isinf(value)));
}

float componentOf(vec4 value, float which) {
  return which < 0.5 ? value.x : which < 1.5 ? value.y : which < 2.5 ? value.z : which < 3.5 ? value.w : length(value.xyz);
}

// A value that is to be seen as it is: the view transform's encoding is taken back.
vec3 asSeen(vec3 value) {
  return linearFromSrgb(clamp(value, 0.0, 1.0));
}

vec3 peeked(vec4 value) {
  // No number, or beyond all numbers: a check.
  if (!isNumber(value)) {
    float check = mod(floor(pixelHere().x / 4.0) + floor(pixelHere().y / 4.0), 2.0);
    return vec3(1.0, 1.0, 0.0) * check;
  }
  if (peekOutlet.y < 1.5) {
    return clamp(value.rgb, 0.0, 1.0);
  }
  if (peekOutlet.y > 2.5) {
    return asSeen(safeNormalize(value.xyz) * 0.5 + 0.5);
  }
  float range = peekScale.y - peekScale.x;
  float along = (componentOf(value, peekScale.z) - peekScale.x) / (abs(range) > 1e-12 ? range : 1e-12);
  // Beyond the ends of the scale it is hatched.
  float hatch = along < 0.0 || along > 1.0 ? step(0.5, fract((pixelHere().x + pixelHere().y) / 6.0)) : 0.0;
  return scaleColour(along) * (1.0 - 0.6 * hatch);
}

void main() {
  if (peekOutlet.x < 0.0) {
    pixel = vec4(worldPosition, 1.0 + copyNumber);
    return;
  }
  vec4 value = paintOutlet(int(peekOutlet.x));
  pixel = peekOutlet.y < 0.5 ? value : vec4(peeked(value), 1.0);
}
