/**
 * Colour: one colour, picked by you.
 * @kind colour 1
 * @family Colour
 * @words color, rgb, tint, paint, albedo
 * @source IEC 61966-2-1 primaries, scene-linear (ITU-R BT.709)
 * @inlet value colour "Colour" = 0.8 0.8 0.8
 * @outlet result colour "Colour"
 */
vec3 pickedColour(vec3 value) {
  return value;
}

/**
 * Luminance: how bright a colour is to the eye.
 * @kind luminance 1
 * @family Colour
 * @words brightness, grey, gray, grayscale, value, desaturate
 * @source ITU-R BT.709-6, section 3.2: 0.2126 R + 0.7152 G + 0.0722 B
 * @inlet value colour "Colour" = 0.8 0.8 0.8
 * @outlet result number "Luminance"
 */
float luminanceOf(vec3 value) {
  return dot(value, vec3(0.2126, 0.7152, 0.0722));
}

/**
 * Gradient: a colour ramp; 0 gives its left end, 1 its right.
 * @kind gradient 1
 * @family Colour
 * @words ramp, color ramp, palette, stops, map
 * @source Linear interpolation between neighbouring stops in scene-linear light
 * @inlet at fraction "At" = 0.5 in 0..1
 * @inlet stops stops "Stops" = 0.02 0.02 0.02 0  0.9 0.9 0.9 1
 * @outlet result colour "Colour"
 */
vec3 gradientAt(float at, vec4 stops[8]) {
  vec3 colour = stops[0].rgb;
  for (int i = 1; i < 8; i++) {
    float width = stops[i].a - stops[i - 1].a;
    float t = width > 1e-6 ? (at - stops[i - 1].a) / width : step(stops[i].a, at);
    colour = mix(colour, stops[i].rgb, clamp(t, 0.0, 1.0));
  }
  return colour;
}
