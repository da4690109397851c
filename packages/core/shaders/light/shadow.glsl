// Depths as lights see them, in four squares: two beside each other, two above.
uniform sampler2D shadowAtlas;

const float SHADOW_SIDE = 1024.0;

// The depth that a light sees at a texel of its square; beyond the square nothing stands.
float seenDepth(ivec2 texel, ivec2 corner) {
  ivec2 inside = clamp(texel, ivec2(0), ivec2(1023));
  float depth = texelFetch(shadowAtlas, corner + inside, 0).r;
  return inside == texel ? depth : 1.0;
}

// Whether light gets to a depth past one texel of a square, 1 or 0.
float litTexel(ivec2 texel, ivec2 corner, float depth) {
  return step(depth, seenDepth(texel, corner));
}

// Percentage-closer filtering (Reeves, Salesin, Cook 1987, "Rendering antialiased shadows with depth maps", SIGGRAPH):
// nine comparisons under a tent, a texel apart.
float filteredShadow(vec2 place, ivec2 corner, float depth) {
  vec2 texel = place * SHADOW_SIDE - 0.5;
  vec2 base = floor(texel + 0.5);
  vec2 part = texel - base;
  float sum = 0.0;
  float total = 0.0;
  for (float y = -1.0; y < 1.5; y++) {
    float high = 1.5 - abs(y - part.y);
    for (float x = -1.0; x < 1.5; x++) {
      float weight = high * (1.5 - abs(x - part.x));
      sum += weight * litTexel(ivec2(base + vec2(x, y)), corner, depth);
      total += weight;
    }
  }
  return sum / total;
}

// Half the width that the edge of a shadow may have, texels, and from which on reads are turned from pixel to pixel: so far
// apart they would show as steps, and show as grain instead.
const float WIDEST_EDGE = 40.0;
const float WIDE_EDGE = 14.0;

const mat2 GOLDEN_TURN = mat2(-0.73736888, 0.67549029, -0.67549029, -0.73736888);

// A way of its own for each pixel, by interleaved gradient noise (Jimenez 2014, "Next generation post processing", SIGGRAPH
// course), which is unlike among neighbours: (1 - u^2, 2 u) / (1 + u^2) lies on the circle.
vec2 wayOfPixel() {
  vec2 place = floor(pixelHere());
  float u = 2.0 * fract(52.9829189 * fract(dot(place, vec2(0.06711056, 0.00583715)))) - 1.0;
  return vec2(1.0 - u * u, 2.0 * u) / (1.0 + u * u);
}

vec2 firstWay(float reach, vec2 ofPixel) {
  return reach > WIDE_EDGE ? ofPixel : vec2(1.0, 0.0);
}

// Metres from a light's nearest plane, of a sun, or from a spot.
float shadowMetres(vec4 info, float depth) {
  return info.w > 0.0 ? info.z * info.w / max(info.w - depth * (info.w - info.z), 1e-6) : depth * info.z;
}

// How the depth of a plane changes from texel to texel of a light's square: what lies in the plane does not shade itself,
// however wide an edge is looked at.
vec2 depthSlope(mat4 fromWorld, vec4 clip, vec3 normal) {
  mat3 frame = frameRound(normal);
  vec4 alongX = fromWorld * vec4(frame[0], 0.0);
  vec4 alongY = fromWorld * vec4(frame[1], 0.0);
  vec3 seen = clip.xyz / clip.w;
  vec3 x = (alongX.xyz - seen * alongX.w) / clip.w;
  vec3 y = (alongY.xyz - seen * alongY.w) / clip.w;
  vec2 right = vec2(x.x, -x.y) * (SHADOW_SIDE * 0.5);
  vec2 down = vec2(y.x, -y.y) * (SHADOW_SIDE * 0.5);
  float area = right.x * down.y - right.y * down.x;
  vec2 slope = vec2(x.z * down.y - y.z * right.y, right.x * y.z - down.x * x.z) / (abs(area) < 1e-9 ? 1e9 : area);
  return clamp(slope, -0.01, 0.01);
}

// Beyond a light's farthest plane all is as on it: nothing that throws shadows lies behind.
const float FARTHEST = 0.99999;

// The depth of a plane some texels on.
float planeDepth(float depth, vec2 slope, vec2 away) {
  return min(depth + dot(slope, away), FARTHEST);
}

// The mean of the four texels round a place, weighed by how near they are, 0…1.
float litBetween(vec2 texel, ivec2 corner, float depth) {
  vec2 base = floor(texel - 0.5);
  vec2 part = texel - 0.5 - base;
  ivec2 at = ivec2(base);
  float above = mix(litTexel(at, corner, depth), litTexel(at + ivec2(1, 0), corner, depth), part.x);
  float below = mix(litTexel(at + ivec2(0, 1), corner, depth), litTexel(at + ivec2(1, 1), corner, depth), part.x);
  return mix(above, below, part.y);
}

// The mean depth of what stands in the way round a place, and how many of sixteen reads met something. Places are spread
// evenly over a disc (Vogel 1979, "A better way to construct the sunflower head", Mathematical Biosciences 44): each a golden
// angle on from the one before, and farther out.
vec2 blockersRound(vec2 texel, ivec2 corner, float depth, vec2 slope, float reach, vec2 way) {
  float sum = 0.0;
  float count = 0.0;
  for (int i = 0; i < 16; i++) {
    vec2 away = way * (reach * sqrt((float(i) + 0.5) * 0.0625));
    float there = seenDepth(ivec2(floor(texel + away)), corner);
    float blocks = there < planeDepth(depth, slope, away) ? 1.0 : 0.0;
    sum += there * blocks;
    count += blocks;
    way = GOLDEN_TURN * way;
  }
  return vec2(sum / max(count, 1.0), count);
}

// Edges grow softer with the distance from what throws the shadow (Fernando 2005, "Percentage-closer soft shadows", SIGGRAPH
// sketches): first what stands in the way is looked for, then its shadow is filtered as wide as it would blur.
// `here`: metres, also beyond the farthest plane.
float softShadow(vec2 texel, ivec2 corner, float depth, float here, vec2 slope, vec4 info) {
  vec2 ofPixel = wayOfPixel();
  float reach = clamp(info.y * (here - shadowMetres(info, 0.0)), 2.0, WIDEST_EDGE);
  vec2 found = blockersRound(texel, corner, depth, slope, reach, firstWay(reach, ofPixel));
  // An edge is never wider than what was looked through: where nothing was met there is light, and where all was, none.
  if (found.y < 0.5 || found.y > 15.5) {
    return found.y < 0.5 ? 1.0 : 0.0;
  }
  float edge = clamp(info.y * (here - shadowMetres(info, found.x)), 1.0, WIDEST_EDGE);
  vec2 way = firstWay(edge, ofPixel);
  int reads = edge > WIDE_EDGE ? 32 : 16;
  float sum = 0.0;
  for (int i = 0; i < reads; i++) {
    vec2 away = way * (edge * sqrt((float(i) + 0.5) / float(reads)));
    sum += litBetween(texel + away, corner, planeDepth(depth, slope, away));
    way = GOLDEN_TURN * way;
  }
  return sum / float(reads);
}

// How much of a light's way to this point is free, 0…1. The point is looked up a little way along its normal, farther
// where the light grazes, so that a surface does not shade itself.
float shadowHere(int slot, vec3 normal, vec3 toLight) {
  vec4 info = shadowInfo[slot];
  float cosine = dot(normal, toLight);
  float grazing = sqrt(clamp(1.0 - cosine * cosine, 0.0, 1.0));
  vec3 place = worldPosition + normal * (info.x * (0.6 + 1.4 * grazing));
  mat4 fromWorld = shadowFromWorld[slot];
  vec4 clip = fromWorld * vec4(place, 1.0);
  if (clip.w <= 0.0) {
    return 1.0;
  }
  vec3 seen = clip.xyz / max(clip.w, 1e-6);
  vec2 at = vec2(seen.x * 0.5 + 0.5, 0.5 - seen.y * 0.5);
  ivec2 corner = ivec2(int(mod(float(slot), 2.0)) * 1024, (slot / 2) * 1024);
  float depth = min(seen.z, FARTHEST);
  if (info.y <= 0.0) {
    return filteredShadow(at, corner, depth);
  }
  float here = info.w > 0.0 ? clip.w : seen.z * info.z;
  return softShadow(at * SHADOW_SIDE, corner, depth, here, depthSlope(fromWorld, clip, normal), info);
}

// How strongly shadow counts: fully, but where the picture is taken apart.
float seenShadow(float lit) {
  return lit;
}
