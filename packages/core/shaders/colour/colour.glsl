/**
 * Colour: one colour, picked by you.
 * @kind colour 1
 * @family Colour
 * @words color, rgb, albedo, base colour, base color, tint, paint
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
 * @words ramp, palette, colour ramp, stops, map
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

/**
 * Gradient of colours: a gradient whose colours and places come from outside, as parameters, live inputs or ribbons.
 * @kind gradientOfColours 1
 * @family Colour
 * @words gradient from colours, stops, ramp, make a gradient, build, two colours, four colours
 * @source Stops in the order of their inlets; each place is held at that of the one before
 * @inlet first colour "Colour 1" = 0.02 0.02 0.02
 * @inlet firstAt fraction "Place 1" = 0 in 0..1
 * @inlet second colour "Colour 2" = 0.2 0.2 0.2
 * @inlet secondAt fraction "Place 2" = 0.33 in 0..1
 * @inlet third colour "Colour 3" = 0.5 0.5 0.5
 * @inlet thirdAt fraction "Place 3" = 0.67 in 0..1
 * @inlet fourth colour "Colour 4" = 0.9 0.9 0.9
 * @inlet fourthAt fraction "Place 4" = 1 in 0..1
 * @outlet result stops "Gradient": for the stops of a gradient or a ramp.
 */
vec4[8] gradientOfColours(
  vec3 first, float firstAt, vec3 second, float secondAt, vec3 third, float thirdAt, vec3 fourth, float fourthAt
) {
  float two = max(firstAt, secondAt);
  float three = max(two, thirdAt);
  vec4 last = vec4(fourth, max(three, fourthAt));
  return vec4[8](vec4(first, firstAt), vec4(second, two), vec4(third, three), last, last, last, last, last);
}

/**
 * Gradient, smooth: a colour ramp without corners at its stops.
 * @kind gradientSmooth 1
 * @family Colour
 * @words ramp, palette, stops, ease
 * @source Cubic Hermite interpolation 3t² − 2t³ (GLSL ES 3.00 specification, section 8.3) between neighbouring stops in scene-linear light
 * @inlet at fraction "At" = 0.5 in 0..1
 * @inlet stops stops "Stops" = 0.02 0.02 0.02 0  0.9 0.9 0.9 1
 * @outlet result colour "Colour"
 */
vec3 gradientSmooth(float at, vec4 stops[8]) {
  vec3 colour = stops[0].rgb;
  for (int i = 1; i < 8; i++) {
    float width = stops[i].a - stops[i - 1].a;
    float t = clamp(width > 1e-6 ? (at - stops[i - 1].a) / width : step(stops[i].a, at), 0.0, 1.0);
    colour = mix(colour, stops[i].rgb, t * t * (3.0 - 2.0 * t));
  }
  return colour;
}

/**
 * Gradient, steps: a colour ramp of flat colours, each up to the next stop.
 * @kind gradientSteps 1
 * @family Colour
 * @words ramp, palette, stops, constant, flat, toon, cel
 * @source The colour of the last stop that is not beyond; its edge integrated over the pixel
 * @inlet at fraction "At" = 0.5 in 0..1
 * @inlet stops stops "Stops" = 0.02 0.02 0.02 0  0.9 0.9 0.9 0.5
 * @outlet result colour "Colour"
 */
vec3 gradientSteps(float at, vec4 stops[8]) {
  float width = max(fwidth(at), 1e-6);
  vec3 colour = stops[0].rgb;
  for (int i = 1; i < 8; i++) {
    colour = mix(colour, stops[i].rgb, clamp((at - stops[i].a) / width + 0.5, 0.0, 1.0));
  }
  return colour;
}

/**
 * Gradient, perceptual: a colour ramp whose middles are what the eye takes for the middle.
 * @kind gradientAsSeen 1
 * @family Colour
 * @words ramp, palette, stops, perceptual, oklab, even, gradient, as seen
 * @source Ottosson 2020, "A perceptual color space for image processing" (Oklab; CSS Color 4, section 12)
 * @inlet at fraction "At" = 0.5 in 0..1
 * @inlet stops stops "Stops" = 0.02 0.02 0.02 0  0.9 0.9 0.9 1
 * @outlet result colour "Colour"
 */
vec3 gradientAsSeen(float at, vec4 stops[8]) {
  vec3 lab = oklabFromLinear(stops[0].rgb);
  for (int i = 1; i < 8; i++) {
    float width = stops[i].a - stops[i - 1].a;
    float t = width > 1e-6 ? (at - stops[i - 1].a) / width : step(stops[i].a, at);
    lab = mix(lab, oklabFromLinear(stops[i].rgb), clamp(t, 0.0, 1.0));
  }
  return linearFromOklab(lab);
}

/**
 * Temperature: the colour of a body that glows with heat, by its temperature.
 * @kind temperature 1
 * @family Colour
 * @words kelvin, black body, warm, cool, white balance, fire, glow
 * @source Krystek 1985, "An algorithm to calculate correlated colour temperature", Color Research and Application 10(1), equations 4 and 5; CIE 1931; the matrix of IEC 61966-2-1
 * @inlet kelvin number "Temperature" = 3000 in 1000..15000 unit K
 * @outlet result colour "Colour": its brightest channel is 1.
 */
vec3 temperatureColour(float kelvin) {
  float t = clamp(kelvin, 1000.0, 15000.0);
  float u = (0.860117757 + 1.54118254e-4 * t + 1.28641212e-7 * t * t) / (1.0 + 8.42420235e-4 * t + 7.08145163e-7 * t * t);
  float v = (0.317398726 + 4.22806245e-5 * t + 4.20481691e-8 * t * t) / (1.0 - 2.89741816e-5 * t + 1.61456053e-7 * t * t);
  // CIE 1960 u, v to CIE 1931 X and Z where Y is 1.
  float x = 1.5 * u / v;
  float z = (2.0 * u - 8.0 * v + 4.0) / (2.0 * v) - x - 1.0;
  vec3 linear = max(
    vec3(
      3.2404542 * x - 1.5371385 - 0.4985314 * z,
      -0.969266 * x + 1.8760108 + 0.041556 * z,
      0.0556434 * x - 0.2040259 + 1.0572252 * z
    ),
    0.0
  );
  return linear / max(linear.r, max(linear.g, linear.b));
}
