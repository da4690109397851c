// The picture of all that was drawn before, smaller and smaller by halves, for surfaces that light passes through.
uniform sampler2D sceneThrough;

// Where a point of the world is in the picture, 0…1 from its top left.
vec2 pictureAt(vec3 point) {
  vec4 clip = clipFromWorld * vec4(point, 1.0);
  vec2 seen = clip.xy / max(clip.w, 1e-4);
  return clamp(vec2(seen.x, -seen.y) * 0.5 + 0.5, 0.0, 1.0);
}

// A smooth picture of few pixels: cubic B-spline by four reads between pixels (Sigg, Hadwiger 2005, "Fast third-order
// texture filtering", GPU Gems 2, chapter 20), of one level.
vec3 smoothLevel(vec2 at, float level) {
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
  return (textureLod(sceneThrough, first, level).rgb * low.x + textureLod(sceneThrough, vec2(second.x, first.y), level).rgb * high.x) * low.y
    + (textureLod(sceneThrough, vec2(first.x, second.y), level).rgb * low.x + textureLod(sceneThrough, second, level).rgb * high.x) * high.y;
}

vec3 smoothThrough(vec2 at, float level) {
  if (level <= 0.0) {
    return textureLod(sceneThrough, at, 0.0).rgb;
  }
  float below = floor(level);
  vec3 finer = below < 0.5 ? textureLod(sceneThrough, at, 0.0).rgb : smoothLevel(at, below);
  return mix(finer, smoothLevel(at, below + 1.0), level - below);
}

// How far what is behind lies away, as a part of its way to the eye: what is near behind frosted glass is seen sharper.
float reachAt(vec2 at) {
  vec2 size = vec2(textureSize(sceneDistance, 0));
  float here = depthHere();
  float gap = clamp(texelFetch(sceneDistance, ivec2(clamp(at * size, vec2(0.0), size - 1.0)), 0).x - here, 0.0, 1.0e3);
  return eyePosition.w > 0.5 ? gap / max(gap + here, 1e-4) : min(gap, 2.0);
}

// Light behind, seen at a place of the picture through a surface that scatters it by slopes of this size. Half of a GGX
// surface's tiny mirrors lean less than alpha, by integration of its slopes.
vec3 blurredThrough(vec2 at, float slope) {
  float height = float(textureSize(sceneThrough, 0).y);
  float scale = length(vec3(clipFromWorld[0].y, clipFromWorld[1].y, clipFromWorld[2].y)) * 0.5 * height;
  if (slope * scale < 0.5) {
    return smoothThrough(at, 0.0);
  }
  vec2 step = vec2(min(slope * 0.25, 0.06));
  float reach = 0.2 * (reachAt(at) + reachAt(at + step * vec2(1.0, 0.3)) + reachAt(at + step * vec2(-0.3, 1.0))
    + reachAt(at + step * vec2(-1.0, -0.3)) + reachAt(at + step * vec2(0.3, -1.0)));
  float radius = slope * reach * scale;
  return smoothThrough(at, log2(max(radius * 1.4, 1.0)));
}

vec3 refractedTo(vec3 normal, vec3 toEye, float ior, float way) {
  return worldPosition + refract(-toEye, normal, 1.0 / ior) * way;
}

/**
 * Seen through: what is behind, refracted by a body of glass and blurred where its surface is rough.
 * @kind seenThrough 1
 * @family Light
 * @words glass, transmission, refraction, frosted, thick, volume, clear, transparent
 * @source KHR_materials_transmission, KHR_materials_volume, KHR_materials_dispersion
 * @inlet ior ior "Index of refraction" = 1.5 in 1..2.5
 * @inlet thickness number "Thickness" = 0 in 0..1 unit m: of the body behind the surface; 0 is a thin pane, which does not bend light.
 * @inlet roughness fraction "Roughness" = 0 in 0..1
 * @inlet dispersion number "Dispersion" = 0 in 0..4: 20 divided by the Abbe number; 0.3 is common glass.
 * @inlet normal normal "Normal" = surface normal
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
