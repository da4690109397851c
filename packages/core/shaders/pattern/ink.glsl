// A place of the picture turned by an angle, in cells of so many CSS pixels.
vec2 inkCell(float size, float angle) {
  vec2 at = pixelHere() * targetSize.zw * targetSize.xy / max(size, 1.0);
  float c = cos(angle);
  float s = sin(angle);
  return vec2(at.x * c - at.y * s, at.x * s + at.y * c);
}

/**
 * Halftone: dots of ink on paper that grow where it is dark, in a grid over the picture.
 * @kind halftone 1
 * @family Patterns
 * @words dots, print, newspaper, screen tone, comic, raster, manga
 * @source Ulichney 1987, "Digital halftoning", MIT Press, chapter 5 (clustered dots on a turned grid); dot area equals darkness
 * @inlet light colour "Light" = 0.5 0.5 0.5: how bright it is here, by its luminance.
 * @inlet size number "Size" = 8 in 2..40 unit pixels: from dot to dot, CSS pixels.
 * @inlet angle number "Angle" = 0.7853982 unit radians: how far the grid is turned.
 * @inlet ink colour "Ink" = 0.02 0.02 0.02
 * @inlet paper colour "Paper" = 0.9 0.9 0.85
 * @outlet result colour "Colour"
 */
vec3 halftone(vec3 light, float size, float angle, vec3 ink, vec3 paper) {
  vec2 cell = inkCell(size, angle);
  vec2 away = fract(cell) - 0.5;
  float dark = 1.0 - clamp(luminanceOf(light), 0.0, 1.0);
  // A disc of radius r covers πr² of its cell; from one half on, what is left free is a disc round the corner.
  float inked = length(away) - sqrt(min(dark, 0.5) * 0.3183098861837907);
  vec2 corner = abs(away) - 0.5;
  float left = sqrt(max(1.0 - dark, 0.0) * 0.3183098861837907) - length(corner);
  float edge = dark <= 0.5 ? inked : left;
  float width = max(1.0 / max(size, 1.0), 1e-4);
  return mix(ink, paper, smoothStepBetween(-0.5 * width, 0.5 * width, edge));
}

/**
 * Hatching: lines of ink that come closer and cross where it gets darker.
 * @kind hatching 1
 * @family Patterns
 * @words crosshatch, pen, engraving, drawing, strokes, etching, comic
 * @source Praun, Hoppe, Webb, Finkelstein 2001, "Real-time hatching", SIGGRAPH, section 3 (strokes are only added as it gets darker)
 * @inlet light colour "Light" = 0.5 0.5 0.5: how bright it is here, by its luminance.
 * @inlet size number "Size" = 7 in 2..40 unit pixels: from line to line, CSS pixels.
 * @inlet angle number "Angle" = 0.6 unit radians: how far the first lines are turned.
 * @inlet thickness fraction "Thickness" = 0.3 in 0..1: of a line, as a part of the way to the next.
 * @inlet ink colour "Ink" = 0.02 0.02 0.02
 * @inlet paper colour "Paper" = 0.9 0.9 0.85
 * @outlet result colour "Colour"
 */
vec3 hatching(vec3 light, float size, float angle, float thickness, vec3 ink, vec3 paper) {
  float bright = clamp(luminanceOf(light), 0.0, 1.0);
  float width = max(1.0 / max(size, 1.0), 1e-4);
  float covered = 0.0;
  // Four layers: each begins at a darkness of its own, and grows to its full thickness.
  for (int i = 0; i < 4; i++) {
    float begins = 0.8 - 0.2 * float(i);
    float grown = clamp((begins - bright) / 0.2, 0.0, 1.0);
    float turn = angle + 1.5707963 * mod(float(i), 2.0) + 0.5 * floor(float(i) / 2.0);
    float away = abs(fract(inkCell(size, turn).x) - 0.5) * 2.0;
    float line = 1.0 - smoothStepBetween(-width, width, away - clamp(thickness, 0.0, 1.0) * grown);
    covered = max(covered, line * step(1e-3, grown));
  }
  return mix(paper, ink, covered);
}
