/**
 * Contrast: drives values away from a middle grey, or towards it.
 * @kind contrast 1
 * @family Colour
 * @words punch, flat, pivot
 * @source (x − pivot) × contrast + pivot
 * @inlet colour colour "Colour" = 0.8 0.8 0.8
 * @inlet contrast number "Contrast" = 1 in 0..4: 1 changes nothing.
 * @inlet pivot number "Pivot" = 0.18 in 0..1: what stays as it is.
 * @outlet result colour "Colour"
 */
vec3 contrasted(vec3 colour, float contrast, float pivot) {
  return (colour - pivot) * contrast + pivot;
}

/**
 * Saturation: makes a colour stronger or greyer; its brightness stays.
 * @kind saturation 1
 * @family Colour
 * @words vivid, grey, gray, desaturate, chroma
 * @source Mix between luminance (ITU-R BT.709-6) and colour
 * @inlet colour colour "Colour" = 0.8 0.8 0.8
 * @inlet amount number "Saturation" = 1 in 0..4: 0 is grey, 1 changes nothing.
 * @outlet result colour "Colour"
 */
vec3 saturated(vec3 colour, float amount) {
  return mix(vec3(luminanceOf(colour)), colour, amount);
}

/**
 * Levels: sets the black point, the white point and the midtone between.
 * @kind levels 1
 * @family Colour
 * @words black point, white point, gamma, range
 * @source ((x − black) / (white − black)) to the 1 / middle; held at 0 below black
 * @inlet colour colour "Colour" = 0.8 0.8 0.8
 * @inlet black number "Black" = 0
 * @inlet white number "White" = 1
 * @inlet middle number "Midtone" = 1 in 0.1..10: above 1 the middle is brighter.
 * @outlet result colour "Colour"
 */
vec3 levelled(vec3 colour, float black, float white, float middle) {
  vec3 part = divideValues(colour - black, vec3(white - black));
  return powerOf(max(part, vec3(0.0)), vec3(1.0 / clamp(middle, 0.01, 100.0)));
}

/**
 * Posterise: so many even steps between 0 and 1 in each channel.
 * @kind posterise 1
 * @family Colour
 * @words steps, poster, quantise, flat, print
 * @source floor(x n) / (n − 1), held between 0 and 1
 * @inlet colour colour "Colour" = 0.8 0.8 0.8
 * @inlet count count "Steps" = 4 in 2..32: the darkest and the brightest included.
 * @outlet result colour "Colour": 0…1.
 */
vec3 posterised(vec3 colour, float count) {
  float steps = clamp(floor(count + 0.5), 2.0, 256.0);
  return min(floor(clamp(colour, 0.0, 1.0) * steps), vec3(steps - 1.0)) / (steps - 1.0);
}

/**
 * Invert: the opposite of a colour: white less the colour.
 * @kind invert 1
 * @family Colour
 * @words negative, opposite, complement
 * @source 1 − x, channel by channel
 * @inlet colour colour "Colour" = 0.8 0.8 0.8
 * @outlet result colour "Colour"
 */
vec3 invertedOf(vec3 colour) {
  return vec3(1.0) - colour;
}

/**
 * Tint: washes a colour over another, keeping how bright it is.
 * @kind tint 1
 * @family Colour
 * @words wash, stain, colourise, tone
 * @source x (1 − a) + a × tint × luminance(x) / luminance(tint)
 * @inlet colour colour "Colour" = 0.8 0.8 0.8
 * @inlet tint colour "Tint" = 0.9 0.6 0.4
 * @inlet amount fraction "Amount" = 0.5 in 0..1
 * @outlet result colour "Colour"
 */
vec3 tinted(vec3 colour, vec3 tint, float amount) {
  float bright = luminanceOf(tint);
  vec3 washed = abs(bright) < 1e-6 ? vec3(luminanceOf(colour)) : tint * (luminanceOf(colour) / bright);
  return mix(colour, washed, clamp(amount, 0.0, 1.0));
}
