struct HueSaturationValue {
  float hue;
  float saturation;
  float value;
};

/**
 * Hue, saturation, value: takes a colour apart into hue, saturation and value.
 * @kind hsvFromColour 1
 * @family Colour
 * @words hsv, hsb, hue, split colour
 * @source Smith 1978, "Color gamut transform pairs", SIGGRAPH
 * @inlet colour colour "Colour" = 0.8 0.8 0.8
 * @outlet hue fraction "Hue": 0…1 round the wheel, red at 0.
 * @outlet saturation fraction "Saturation": 0…1.
 * @outlet value number "Value": the largest channel.
 */
HueSaturationValue hsvFromColour(vec3 colour) {
  vec3 held = max(colour, vec3(0.0));
  float high = max(held.r, max(held.g, held.b));
  float range = high - min(held.r, min(held.g, held.b));
  float safe = max(range, 1e-20);
  float turn = held.r >= high ? (held.g - held.b) / safe : held.g >= high ? 2.0 + (held.b - held.r) / safe : 4.0 + (held.r - held.g) / safe;
  float hue = range < 1e-9 * high || high <= 0.0 ? 0.0 : turn / 6.0;
  return HueSaturationValue(hue - floor(hue), high > 0.0 ? range / max(high, 1e-20) : 0.0, high);
}

/**
 * Colour from hue: makes a colour of hue, saturation and value.
 * @kind colourFromHsv 1
 * @family Colour
 * @words hsv, hsb, hue, rainbow, wheel
 * @source Smith 1978, "Color gamut transform pairs", SIGGRAPH
 * @inlet hue fraction "Hue" = 0 in 0..1: round the wheel, red at 0.
 * @inlet saturation fraction "Saturation" = 1 in 0..1
 * @inlet value number "Value" = 1 in 0..1: the largest channel.
 * @outlet result colour "Colour"
 */
vec3 colourFromHsv(float hue, float saturation, float value) {
  vec3 turns = vec3(hue) + vec3(0.0, 2.0 / 3.0, 1.0 / 3.0);
  vec3 wheel = clamp(abs((turns - floor(turns)) * 6.0 - 3.0) - 1.0, 0.0, 1.0);
  return mix(vec3(1.0), wheel, clamp(saturation, 0.0, 1.0)) * value;
}

// Ottosson 2020, "A perceptual color space for image processing" (Oklab; CSS Color 4, section 9); from and to linear Rec. 709.
vec3 oklabFromLinear(vec3 colour) {
  vec3 cone = vec3(
    dot(colour, vec3(0.4122214708, 0.5363325363, 0.0514459929)),
    dot(colour, vec3(0.2119034982, 0.6806995451, 0.1073969566)),
    dot(colour, vec3(0.0883024619, 0.2817188376, 0.6299787005))
  );
  vec3 root = sign(cone) * pow(max(abs(cone), vec3(1e-24)), vec3(1.0 / 3.0));
  return vec3(
    dot(root, vec3(0.2104542553, 0.7936177850, -0.0040720468)),
    dot(root, vec3(1.9779984951, -2.4285922050, 0.4505937099)),
    dot(root, vec3(0.0259040371, 0.7827717662, -0.8086757660))
  );
}

vec3 linearFromOklab(vec3 lab) {
  vec3 root = vec3(
    dot(lab, vec3(1.0, 0.3963377774, 0.2158037573)),
    dot(lab, vec3(1.0, -0.1055613458, -0.0638541728)),
    dot(lab, vec3(1.0, -0.0894841775, -1.2914855480))
  );
  vec3 cone = root * root * root;
  return vec3(
    dot(cone, vec3(4.0767416621, -3.3077115913, 0.2309699292)),
    dot(cone, vec3(-1.2684380046, 2.6097574011, -0.3413193965)),
    dot(cone, vec3(-0.0041960863, -0.7034186147, 1.7076147010))
  );
}

struct LightnessChromaHue {
  float lightness;
  float chroma;
  float hue;
};

/**
 * Lightness, chroma, hue: takes a colour apart as the eye sees it: equal steps look equally large.
 * @kind lchFromColour 1
 * @family Colour
 * @words oklch, oklab, perceptual, lightness, chroma
 * @source Ottosson 2020, "A perceptual color space for image processing" (Oklab; CSS Color 4, section 9)
 * @inlet colour colour "Colour" = 0.8 0.8 0.8
 * @outlet lightness number "Lightness": 0 is black, 1 white.
 * @outlet chroma number "Chroma": 0 is grey; the strongest colours reach about 0.3.
 * @outlet hue fraction "Hue": 0…1 round the wheel.
 */
LightnessChromaHue lchFromColour(vec3 colour) {
  vec3 lab = oklabFromLinear(colour);
  float turn = angleOfPoint(lab.z, lab.y) / 6.283185307;
  return LightnessChromaHue(lab.x, length(lab.yz), turn - floor(turn));
}

/**
 * Colour from lightness: makes a colour of lightness, chroma and hue as the eye sees them.
 * @kind colourFromLch 1
 * @family Colour
 * @words oklch, oklab, perceptual, lightness, chroma
 * @source Ottosson 2020, "A perceptual color space for image processing" (Oklab; CSS Color 4, section 9)
 * @inlet lightness number "Lightness" = 0.7 in 0..1: 0 is black, 1 white.
 * @inlet chroma number "Chroma" = 0.1 in 0..0.4: 0 is grey.
 * @inlet hue fraction "Hue" = 0 in 0..1: round the wheel.
 * @outlet result colour "Colour": beyond the strongest colours some channel is below 0.
 */
vec3 colourFromLch(float lightness, float chroma, float hue) {
  float turn = (hue - floor(hue)) * 6.283185307;
  float held = clamp(chroma, 0.0, 2.0);
  return linearFromOklab(vec3(clamp(lightness, 0.0, 4.0), held * cos(turn), held * sin(turn)));
}

/**
 * Mix, perceptual: from one colour to another through what the eye takes for the middle.
 * @kind mixAsSeen 1
 * @family Colour
 * @words perceptual, blend, oklab, even, mix as seen
 * @source Ottosson 2020, "A perceptual color space for image processing" (Oklab; CSS Color 4, section 9)
 * @inlet a colour "A" = 0.02 0.02 0.02
 * @inlet b colour "B" = 0.9 0.9 0.9
 * @inlet amount fraction "Amount" = 0.5 in 0..1
 * @outlet result colour "Colour"
 */
vec3 mixedAsSeen(vec3 a, vec3 b, float amount) {
  return linearFromOklab(mix(oklabFromLinear(a), oklabFromLinear(b), amount));
}

/**
 * Encode as sRGB: a scene-linear colour as sRGB-encoded values, as files and screens have them.
 * @kind srgbEncode 1
 * @family Colour
 * @words gamma, linear to srgb, encode
 * @source IEC 61966-2-1:1999, section 5.2; held between 0 and 1
 * @inlet colour colour "Colour" = 0.8 0.8 0.8
 * @outlet result vector "Encoded": 0…1.
 */
vec3 srgbEncoded(vec3 colour) {
  return srgbFromLinear(clamp(colour, 0.0, 1.0));
}

/**
 * Decode sRGB: sRGB-encoded values, as files and screens have them, as scene-linear colour.
 * @kind srgbDecode 1
 * @family Colour
 * @words gamma, srgb to linear, decode
 * @source IEC 61966-2-1:1999, section 5.2; held between 0 and 1
 * @inlet encoded vector "Encoded" = 0.5 0.5 0.5
 * @outlet result colour "Colour": 0…1.
 */
vec3 srgbDecoded(vec3 encoded) {
  return linearFromSrgb(clamp(encoded, 0.0, 1.0));
}

/**
 * Cosine palette: repeating colours: each channel is a cosine with a bias, amplitude, frequency and phase of its own.
 * @kind cosinePalette 1
 * @family Colour
 * @words palette, rainbow, iridescent, procedural, gradient
 * @source a + b cos(2π (c t + d)), channel by channel
 * @inlet at number "At" = 0
 * @inlet middle colour "Bias" = 0.5 0.5 0.5
 * @inlet swing colour "Amplitude" = 0.5 0.5 0.5
 * @inlet speed vector "Frequency" = 1 1 1: swings of red, green and blue from 0 to 1.
 * @inlet start vector "Phase" = 0 0.33 0.67: where each swing begins, 0…1.
 * @outlet result colour "Colour"
 */
vec3 cosinePalette(float at, vec3 middle, vec3 swing, vec3 speed, vec3 start) {
  vec3 turns = speed * at + start;
  return middle + swing * cos(6.283185307 * (turns - floor(turns)));
}

// A scale for values that are no colours, 0…1: lightness grows evenly, so that more looks like more, while the hue goes from
// blue over red to yellow, which tells neighbours apart.
vec3 scaleColour(float along) {
  float held = clamp(along, 0.0, 1.0);
  return clamp(colourFromLch(0.22 + 0.7 * held, 0.09 + 0.16 * held * (1.0 - held), 0.74 + 0.54 * held), 0.0, 1.0);
}
