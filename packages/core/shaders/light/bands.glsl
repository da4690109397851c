// A number of bands as it is typed: whole, and at least one.
float bandCount(float count) {
  return max(floor(count + 0.5), 1.0);
}

// The level of one of so many equal bands over 0…1, from 0 (the darkest) to 1 (the brightest). `steps` is whole;
// `sharpness` is 1 over the width of the change between two bands, as a part of a band.
float bandLevel(float value, float steps, float sharpness) {
  float scaled = clamp(value, 0.0, 1.0) * steps;
  float low = min(floor(scaled + 0.5), steps - 1.0);
  // The border nearest to this value; the first and last half band have none beyond them.
  float part = clamp((scaled - low) * sharpness + 0.5, 0.0, 1.0);
  float across = low < 0.5 ? 0.0 : part * part * (3.0 - 2.0 * part);
  return steps < 1.5 ? 1.0 : max(low - 1.0 + across, 0.0) / (steps - 1.0);
}

/**
 * Bands: light in flat steps instead of a smooth falloff.
 * @kind bands 1
 * @family Light
 * @words toon, cel, cel shading, many bands, banding, cartoon, steps, posterise, quantise, anime
 * @source Lake, Marshall, Harris, Blackstein 2000, "Stylized rendering techniques for scalable real-time 3D animation", NPAR, section 3.1
 * @inlet base colour "Colour" = 0.8 0.8 0.8: the colour under full light.
 * @inlet count count "Bands" = 3 in 1..12: how many flat steps, the darkest included.
 * @inlet softness fraction "Softness" = 0 in 0..1: 0 is a crisp border, 1 has no flat part left.
 * @inlet floor fraction "Floor" = 0.2 in 0..1: brightness of the darkest band.
 * @inlet tint colour "Tint" = 1 1 1: colour of the darkest band.
 * @inlet normal normal "Normal" = surface normal
 * @factors base
 * @feature occluded "ambient occlusion": near surfaces darken its ambient light, where the rig has that switched on.
 * @outlet result light "Light"
 */
Lit bands(vec3 base, float count, float softness, float floor, vec3 tint, vec3 normal, bool occluded) {
  vec3 seen = seenBase(base);
  // The normal turns by this much from pixel to pixel, and the cosine by no more: enough softness to draw smooth borders.
  float turn = length(fwidth(normal));
  float steps = bandCount(count);
  float sharpness = 1.0 / clamp(max(softness, turn * count), 1e-4, 1.0);
  vec3 shade = tint * floor;
  vec3 around = occluded ? ambientHere(normal) : ambientOfDrawing(normal);
  vec3 matte = vec3(0.0);
  int total = lightsInUse();
  for (int i = 0; i < total; i++) {
    LightHere light = lightHere(i);
    // In shadow light falls back through the bands.
    float level = bandLevel(dot(normal, light.toLight) * light.shadow, steps, sharpness);
    around += light.ambient;
    matte += light.diffuse * mix(shade, vec3(1.0), level);
  }
  Lit lit = darkness();
  lit.ambient = seen * around;
  lit.diffuse = seen * matte;
  return lit;
}

/**
 * Bands by width: light in flat steps that are all equally wide.
 * @kind bandsByWidth 1
 * @family Light
 * @words toon, many bands, cel, cartoon, step width, quantise, posterise
 * @source Lake, Marshall, Harris, Blackstein 2000, NPAR, section 3.1; the number of bands follows from their width
 * @inlet base colour "Colour" = 0.8 0.8 0.8: the colour under full light.
 * @inlet width fraction "Step width" = 0.25 in 0.02..1: of the cosine between normal and light.
 * @inlet softness fraction "Softness" = 0 in 0..1: 0 is a crisp border, 1 has no flat part left.
 * @inlet floor fraction "Floor" = 0.2 in 0..1: brightness of the darkest band.
 * @inlet tint colour "Tint" = 1 1 1: colour of the darkest band.
 * @inlet normal normal "Normal" = surface normal
 * @factors base
 * @feature occluded "ambient occlusion": near surfaces darken its ambient light, where the rig has that switched on.
 * @outlet result light "Light"
 */
Lit bandsByWidth(vec3 base, float width, float softness, float floor, vec3 tint, vec3 normal, bool occluded) {
  return bands(base, 1.0 / clamp(width, 0.02, 1.0), softness, floor, tint, normal, occluded);
}

// How far a value is above a border, 0…1, with a soft edge.
float aboveBorder(float value, float border, float edge) {
  float width = max(edge, 1e-4) * 0.5;
  return smoothStepBetween(border - width, border + width, value);
}

/**
 * Bands by place: two borders between dark, middle and bright, wherever you put them.
 * @kind bandsByPlace 1
 * @family Light
 * @words toon, cel, cartoon, threshold, shadow, midtone, border, position
 * @source Lake, Marshall, Harris, Blackstein 2000, NPAR, section 3.1, with borders of one's own
 * @inlet base colour "Colour" = 0.8 0.8 0.8: the colour under full light.
 * @inlet lower number "Lower border" = 0 in -1..1: cosine between normal and light where the dark ends.
 * @inlet upper number "Upper border" = 0.5 in -1..1: where the bright begins.
 * @inlet middle fraction "Middle" = 0.5 in 0..1: brightness between the borders.
 * @inlet softness fraction "Softness" = 0 in 0..1: how wide the borders are.
 * @inlet floor fraction "Floor" = 0.2 in 0..1: brightness of the dark.
 * @inlet tint colour "Tint" = 1 1 1: colour of the dark.
 * @inlet normal normal "Normal" = surface normal
 * @factors base
 * @feature occluded "ambient occlusion": near surfaces darken its ambient light, where the rig has that switched on.
 * @outlet result light "Light"
 */
Lit bandsByPlace(vec3 base, float lower, float upper, float middle, float softness, float floor, vec3 tint, vec3 normal, bool occluded) {
  vec3 seen = seenBase(base);
  float edge = max(softness, length(fwidth(normal)));
  vec3 around = occluded ? ambientHere(normal) : ambientOfDrawing(normal);
  vec3 matte = vec3(0.0);
  int total = lightsInUse();
  for (int i = 0; i < total; i++) {
    LightHere light = lightHere(i);
    float facing = dot(normal, light.toLight);
    facing = mix(min(facing, -1.0), facing, light.shadow);
    vec3 level = mix(tint * floor, vec3(middle), aboveBorder(facing, lower, edge));
    level = mix(level, vec3(1.0), aboveBorder(facing, max(upper, lower), edge));
    around += light.ambient;
    matte += light.diffuse * level;
  }
  Lit lit = darkness();
  lit.ambient = seen * around;
  lit.diffuse = seen * matte;
  return lit;
}

/**
 * Ramp: the light's falloff drawn as a gradient, from the shadow at its left to full light at its right.
 * @kind ramp 1
 * @family Light
 * @words toon, ramp shading, gradient, falloff, shade curve, cel
 * @source Lake, Marshall, Harris, Blackstein 2000, NPAR, section 3.1 (a one-dimensional texture of light)
 * @inlet base colour "Colour" = 0.8 0.8 0.8: the colour under full light.
 * @inlet stops stops "Falloff" = 0.1 0.1 0.16 0.45  0.55 0.5 0.55 0.55  1 1 1 0.75: at 0 the surface faces away from the light, at 0.5 it is edge on, at 1 it faces it.
 * @inlet normal normal "Normal" = surface normal
 * @factors base
 * @feature occluded "ambient occlusion": near surfaces darken its ambient light, where the rig has that switched on.
 * @outlet result light "Light"
 */
Lit ramp(vec3 base, vec4 stops[8], vec3 normal, bool occluded) {
  vec3 seen = seenBase(base);
  vec3 around = occluded ? ambientHere(normal) : ambientOfDrawing(normal);
  vec3 matte = vec3(0.0);
  int total = lightsInUse();
  for (int i = 0; i < total; i++) {
    LightHere light = lightHere(i);
    float facing = 0.5 + 0.5 * dot(normal, light.toLight);
    vec3 level = gradientAt(facing * light.shadow, stops);
    around += light.ambient;
    matte += light.diffuse * level;
  }
  Lit lit = darkness();
  lit.ambient = seen * around;
  lit.diffuse = seen * matte;
  return lit;
}

/**
 * Ramp image: the light's falloff read from the middle row of an image, shadow at its left, full light at its right.
 * @kind rampImage 1
 * @family Light
 * @words toon, ramp texture, lookup, falloff, cel
 * @source Lake, Marshall, Harris, Blackstein 2000, NPAR, section 3.1 (a one-dimensional texture of light)
 * @inlet image image "Image"
 * @inlet base colour "Colour" = 0.8 0.8 0.8: the colour under full light.
 * @inlet normal normal "Normal" = surface normal
 * @factors base
 * @feature occluded "ambient occlusion": near surfaces darken its ambient light, where the rig has that switched on.
 * @outlet result light "Light"
 */
Lit rampImage(sampler2D image, vec3 base, vec3 normal, bool occluded) {
  vec3 seen = seenBase(base);
  vec3 around = occluded ? ambientHere(normal) : ambientOfDrawing(normal);
  vec3 matte = vec3(0.0);
  int total = lightsInUse();
  for (int i = 0; i < total; i++) {
    LightHere light = lightHere(i);
    // Not the outermost pixels' outer halves, which would wrap round in a repeating image.
    float at = clamp((0.5 + 0.5 * dot(normal, light.toLight)) * light.shadow, 0.002, 0.998);
    around += light.ambient;
    matte += light.diffuse * textureLod(image, vec2(at, 0.5), 0.0).rgb;
  }
  Lit lit = darkness();
  lit.ambient = seen * around;
  lit.diffuse = seen * matte;
  return lit;
}

/**
 * Hard spot: a highlight with a crisp edge, as drawn in ink or paint.
 * @kind hardSpot 1
 * @family Light
 * @words toon, specular, highlight, cel, crisp, dot, shine
 * @source Lake, Marshall, Harris, Blackstein 2000, NPAR, section 3.1, with the half vector of Blinn 1977
 * @inlet colour colour "Colour" = 1 1 1
 * @inlet size fraction "Size" = 0.12 in 0..1: how far from the middle of the highlight it reaches; 1 is a quarter turn of the normal.
 * @inlet softness fraction "Softness" = 0.05 in 0..1: how wide the edge is.
 * @inlet normal normal "Normal" = surface normal
 * @inlet toEye directionToEye "View direction" = surface viewDirection
 * @outlet result light "Light"
 */
Lit hardSpot(vec3 colour, float size, float softness, vec3 normal, vec3 toEye) {
  float edge = max(softness * 0.5, length(fwidth(normal)) * 0.64);
  Lit lit = darkness();
  int total = lightsInUse();
  for (int i = 0; i < total; i++) {
    LightHere light = lightHere(i);
    float away = acos(clamp(dot(normal, safeNormalize(light.toLight + toEye)), -1.0, 1.0)) * 0.6366197723675814;
    float inside = 1.0 - aboveBorder(away, size, edge);
    float shown = step(0.0, dot(normal, light.toLight)) * inside;
    lit.specular += colour * light.specular * (light.shadow * shown);
  }
  return lit;
}

// The same without near occlusion, for code.
Lit bands(vec3 base, float count, float softness, float floor, vec3 tint, vec3 normal) {
  return bands(base, count, softness, floor, tint, normal, false);
}

Lit bandsByWidth(vec3 base, float width, float softness, float floor, vec3 tint, vec3 normal) {
  return bandsByWidth(base, width, softness, floor, tint, normal, false);
}

Lit bandsByPlace(vec3 base, float lower, float upper, float middle, float softness, float floor, vec3 tint, vec3 normal) {
  return bandsByPlace(base, lower, upper, middle, softness, floor, tint, normal, false);
}

Lit ramp(vec3 base, vec4 stops[8], vec3 normal) {
  return ramp(base, stops, normal, false);
}

Lit rampImage(sampler2D image, vec3 base, vec3 normal) {
  return rampImage(image, base, normal, false);
}
