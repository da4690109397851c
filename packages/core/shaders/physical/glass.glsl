// The picture of all that was drawn before, smaller and smaller by halves, for surfaces that light passes through; in alpha one
// by its depth (metres from the plane of the eye), so that means of it are as smooth as the picture.
uniform sampler2D sceneThrough;

// Where a point of the world is in the picture, 0…1 from its top left.
vec2 pictureAt(vec3 point) {
  vec4 clip = clipFromWorld * vec4(point, 1.0);
  vec2 seen = clip.xy / max(clip.w, 1e-4);
  return clamp(vec2(seen.x, -seen.y) * 0.5 + 0.5, 0.0, 1.0);
}

// A smooth picture of few pixels: cubic B-spline by four reads between pixels (Sigg, Hadwiger 2005, "Fast third-order
// texture filtering", GPU Gems 2, chapter 20), of one level.
vec4 smoothLevel(vec2 at, float level) {
  vec2 size = max(floor(vec2(textureSize(sceneThrough, 0)) * exp2(-level)), vec2(1.0));
  vec2 place = at * size - 0.5;
  vec2 cell = floor(place);
  vec2 f = place - cell;
  vec2 g = 1.0 - f;
  vec2 w0 = g * g * g / 6.0;
  vec2 w1 = (4.0 - 6.0 * f * f + 3.0 * f * f * f) / 6.0;
  vec2 w3 = f * f * f / 6.0;
  vec2 low = w0 + w1;
  vec2 high = 1.0 - low;
  vec2 first = (cell - 0.5 + w1 / low) / size;
  vec2 second = (cell + 1.5 + w3 / high) / size;
  return (textureLod(sceneThrough, first, level) * low.x + textureLod(sceneThrough, vec2(second.x, first.y), level) * high.x) * low.y
    + (textureLod(sceneThrough, vec2(first.x, second.y), level) * low.x + textureLod(sceneThrough, second, level) * high.x) * high.y;
}

vec4 smoothThrough(vec2 at, float level) {
  if (level <= 0.0) {
    return textureLod(sceneThrough, at, 0.0);
  }
  float below = floor(level);
  vec4 finer = below < 0.5 ? textureLod(sceneThrough, at, 0.0) : smoothLevel(at, below);
  return mix(finer, smoothLevel(at, below + 1.0), level - below);
}

// How far what is behind lies away, as a part of its way to the eye: what is near behind frosted glass is seen sharper.
float reachOf(float inverseDepth) {
  float here = depthHere();
  float gap = clamp(1.0 / max(inverseDepth, 1e-4) - here, 0.0, 1.0e3);
  return eyePosition.w > 0.5 ? clamp(1.0 - here * inverseDepth, 0.0, 1.0) : min(gap, 2.0);
}

float levelOfRadius(float pixels) {
  return log2(max(pixels * 1.4, 1.0));
}

// Light behind, seen at a place of the picture through a surface that scatters it by slopes of this size. Half of a GGX
// surface's tiny mirrors lean less than alpha, by integration of its slopes. How far what is behind lies is asked of smooth
// means too: first all round that the surface may scatter to, then as near as that tells. A few single reads would show as
// edges wherever depth steps.
vec3 blurredThrough(vec2 at, float slope) {
  float height = float(textureSize(sceneThrough, 0).y);
  float widest = slope * length(vec3(clipFromWorld[0].y, clipFromWorld[1].y, clipFromWorld[2].y)) * 0.5 * height;
  if (widest < 0.5) {
    return smoothThrough(at, 0.0).rgb;
  }
  float roughly = reachOf(smoothThrough(at, levelOfRadius(widest)).a);
  float reach = reachOf(smoothThrough(at, levelOfRadius(widest * max(roughly, 0.25))).a);
  return smoothThrough(at, levelOfRadius(widest * reach)).rgb;
}

vec3 refractedTo(vec3 normal, vec3 toEye, float ior, float way) {
  return worldPosition + refract(-toEye, normal, 1.0 / ior) * way;
}

/**
 * Transmission: what is behind, refracted by a body of glass and blurred where its surface is rough.
 * @kind seenThrough 1
 * @family Light
 * @words glass, transmission, dispersion, volume, refraction, frosted, thick, clear, transparent, seen through
 * @source KHR_materials_transmission, KHR_materials_volume, KHR_materials_dispersion
 * @inlet ior ior "Index of refraction" = 1.5 in 1..2.5
 * @inlet thickness number "Thickness" = 0 in 0..1 unit m: of the body behind the surface; 0 is a thin pane, which does not bend light.
 * @inlet roughness fraction "Roughness" = 0 in 0..1
 * @inlet dispersion number "Dispersion" = 0 in 0..4: 20 divided by the Abbe number; 0.3 is common glass.
 * @inlet normal normal "Normal" = surface normal
 * @factors roughness
 * @outlet result colour "Colour"
 */
vec3 seenThrough(float ior, float thickness, float roughness, float dispersion, vec3 normal) {
  vec3 toEye = surfaceToEye();
  float index = clamp(ior, 1.0, 4.0);
  float way = bodyThickness(thickness);
  float slope = slopeThrough(roughness, index, way);
  float spread = (index - 1.0) * 0.025 * clamp(dispersion, 0.0, 20.0);
  if (spread <= 0.0) {
    return blurredThrough(pictureAt(refractedTo(normal, toEye, index, way)), slope);
  }
  return vec3(
    blurredThrough(pictureAt(refractedTo(normal, toEye, max(index - spread, 1.0), way)), slope).r,
    blurredThrough(pictureAt(refractedTo(normal, toEye, index, way)), slope).g,
    blurredThrough(pictureAt(refractedTo(normal, toEye, index + spread, way)), slope).b
  );
}

// Metres of the world that light goes through behind this point. At the far side of a body it has gone through already.
float bodyThickness(float thickness) {
  return gl_FrontFacing ? clamp(thickness, 0.0, 1.0e3) * length(vec3(placeRowX.x, placeRowY.x, placeRowZ.x)) : 0.0;
}

// A pane scatters as its mirror image does, twice the lean of its tiny mirrors; a body bends by as much as light bends in it.
float slopeThrough(float roughness, float ior, float way) {
  float held = clamp(roughness, 0.0, 1.0);
  return held * held * (way > 0.0 ? ior - 1.0 : 2.0);
}
