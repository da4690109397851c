uniform sampler2D smaller;
uniform sampler2D same;

uniform BloomUp {
  vec4 smallerStep;  // x, y: 1 / size of the smaller picture
  vec4 upExtent;     // x, y: size of the target in pixels
};

out vec4 pixel;

// A tent over nine reads of the smaller picture, half and half with the one of this size.
void main() {
  vec2 at = gl_FragCoord.xy / upExtent.xy;
  vec3 sum = vec3(0.0);
  for (int i = 0; i < 9; i++) {
    vec2 away = vec2(mod(float(i), 3.0) - 1.0, floor(float(i) / 3.0) - 1.0);
    float weight = (2.0 - abs(away.x)) * (2.0 - abs(away.y)) / 16.0;
    sum += textureLod(smaller, at + away * smallerStep.xy, 0.0).rgb * weight;
  }
  pixel = vec4((sum + textureLod(same, at, 0.0).rgb) * 0.5, 1.0);
}
