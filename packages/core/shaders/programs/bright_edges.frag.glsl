uniform sampler2D brightScene;   // scene-linear light
uniform sampler2D seenPicture;   // the same as it is seen: exposed, bent and encoded

uniform BrightEdges {
  vec4 edgeExposure;   // x: factor, 2 to the number of stops
};

out vec4 pixel;

vec3 seenAt(vec2 place) {
  return texture(seenPicture, place / vec2(textureSize(seenPicture, 0))).rgb;
}

// Encoded, so that equal steps look equal.
float lumaAt(vec2 place) {
  return luminanceOf(seenAt(place));
}

float brightestAt(ivec2 at) {
  ivec2 last = textureSize(brightScene, 0) - ivec2(1);
  vec3 light = texelFetch(brightScene, clamp(at, ivec2(0), last), 0).rgb * edgeExposure.x;
  return max(light.r, max(light.g, light.b));
}

// A pixel's samples are averaged before light is bent: one of four that is ten times as bright as white makes it white, and the
// edge a stair. So where light is brighter than white, what is seen is smoothed along its edges. An edge runs across the change
// of luma round it; means of two and of four places along it stand for the pixel, the second where it stays within what is
// round it. After Lottes 2009, "FXAA", in its short form.
void main() {
  ivec2 at = ivec2(gl_FragCoord.xy);
  pixel = texelFetch(seenPicture, at, 0);
  float across = max(brightestAt(at - ivec2(1, 0)), brightestAt(at + ivec2(1, 0)));
  float along = max(brightestAt(at - ivec2(0, 1)), brightestAt(at + ivec2(0, 1)));
  if (max(brightestAt(at), max(across, along)) <= 1.0) {
    return;
  }
  vec2 place = gl_FragCoord.xy;
  float here = luminanceOf(pixel.rgb);
  float a = lumaAt(place + vec2(-1.0, -1.0));
  float b = lumaAt(place + vec2(1.0, -1.0));
  float c = lumaAt(place + vec2(-1.0, 1.0));
  float d = lumaAt(place + vec2(1.0, 1.0));
  float least = min(here, min(min(a, b), min(c, d)));
  float most = max(here, max(max(a, b), max(c, d)));
  if (most - least < max(0.0625, most * 0.125)) {
    return;
  }
  vec2 change = vec2(b + d - a - c, c + d - a - b);
  float shorter = min(abs(change.x), abs(change.y));
  vec2 way = clamp(vec2(change.y, -change.x) / (shorter + max((a + b + c + d) / 32.0, 1.0 / 128.0)), vec2(-8.0), vec2(8.0));
  vec3 two = 0.5 * (seenAt(place - way / 6.0) + seenAt(place + way / 6.0));
  vec3 four = 0.5 * two + 0.25 * (seenAt(place - way * 0.5) + seenAt(place + way * 0.5));
  float found = luminanceOf(four);
  pixel.rgb = found < least || found > most ? two : four;
}
