// What was found, pixel by pixel: how open in x, depth in y.
uniform sampler2D nearFound;

uniform NearSmooth {
  vec4 nearWay;   // xy: pixels from one read to the next
};

out vec4 pixel;

// The mean along a row or column of what lies on the same surface: takes the grain of turned slices away.
void main() {
  vec2 size = vec2(textureSize(nearFound, 0));
  vec2 here = texelFetch(nearFound, ivec2(gl_FragCoord.xy), 0).xy;
  float sum = here.x;
  float weights = 1.0;
  for (int i = 0; i < 6; i++) {
    float away = float(i) < 2.5 ? float(i) - 3.0 : float(i) - 2.0;
    vec2 place = clamp(gl_FragCoord.xy + nearWay.xy * away, vec2(0.5), size - 0.5);
    vec2 there = texelFetch(nearFound, ivec2(place), 0).xy;
    float weight = clamp(1.0 - abs(there.y - here.y) / max(0.02 * here.y, 1e-4), 0.0, 1.0) * (1.0 - abs(away) * 0.2);
    sum += there.x * weight;
    weights += weight;
  }
  pixel = vec4(sum / weights, here.y, 0.0, 1.0);
}
