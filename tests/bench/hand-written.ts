/**
 * Surface programs as an experienced person would write them for exactly one purpose: the reference for the
 * cost of generated ones. Same inputs, same uniform blocks, same passes.
 */
const HEAD = `#version 300 es
precision highp float;
precision highp int;
uniform vec4 deviceTarget;
layout(std140) uniform Frame { mat4 clipFromWorld; mat4 viewFromWorld; vec4 eyePosition; vec4 targetSize; vec4 pictureCorner; vec4 fogColour; float frameTime; };
layout(std140) uniform Lights { vec4 ambientColour; vec4 ambientSlope; vec4 sunDirection; vec4 sunColour; vec4 lightCount; vec4 lightPlace[8]; vec4 lightColour[8]; vec4 lightAxis[8]; vec4 lightFalloff[8]; vec4 lightWeights[8]; mat4 shadowFromWorld[4]; vec4 shadowInfo[4]; };
`;

/** `vectors`: the size of the material's block, as the generated program has it. */
const fragment = (vectors: number): string => `${HEAD}
layout(std140) uniform Material { vec4 materialValues[${vectors}]; };
in vec3 worldPosition;
in vec3 worldNormal;
layout(location = 0) out vec4 pixel;
// Suns, points and spots with falloff, cone and weights, as the light rig has them.
vec3 arriving(int i, out vec3 l) {
  vec4 p = lightPlace[i];
  vec3 c = lightColour[i].rgb;
  if (p.w < 0.5) { l = p.xyz; return c; }
  vec3 way = p.xyz - worldPosition;
  float d = length(way);
  l = way / max(d, 1e-6);
  float kind = lightFalloff[i].x;
  if (kind > 0.5) {
    float r = d / lightFalloff[i].y;
    c *= (kind < 1.5 ? 1.0 : clamp(1.0 - r * r * r * r, 0.0, 1.0)) / max(d * d, 1e-4);
  }
  if (lightAxis[i].w > 0.0) {
    float a = clamp(dot(l, lightAxis[i].xyz) * lightAxis[i].w + lightFalloff[i].z, 0.0, 1.0);
    c *= a * a;
  }
  return c;
}
`;

export const BLINN_PHONG = `${fragment(3)}
void main() {
  vec3 n = normalize(gl_FrontFacing ? worldNormal : -worldNormal);
  vec3 v = normalize(eyePosition.xyz - worldPosition);
  vec3 base = materialValues[0].xyz;
  vec3 specular = materialValues[1].xyz;
  float exponent = materialValues[0].w;
  vec3 sum = base * max(ambientColour.rgb + ambientSlope.rgb * n.y, 0.0);
  int count = int(lightCount.x);
  for (int i = 0; i < count; i++) {
    vec3 l;
    vec3 c = arriving(i, l);
    vec3 w = lightWeights[i].xyz;
    float nl = dot(n, l);
    sum += c * base * w.x;
    if (nl > 0.0) sum += c * (base * (nl * w.y) + specular * (w.z * pow(max(dot(n, normalize(l + v)), 0.0), exponent)));
  }
  if (fogColour.w > 0.0) sum = mix(fogColour.rgb, sum, exp(-fogColour.w * length(eyePosition.xyz - worldPosition)));
  pixel = vec4(sum, 1.0);
}
`;

export const BANDS = `${fragment(4)}
void main() {
  vec3 n = normalize(gl_FrontFacing ? worldNormal : -worldNormal);
  vec3 base = materialValues[0].xyz;
  float count = floor(materialValues[0].w + 0.5);
  float edge = clamp(max(materialValues[1].x, length(fwidth(n)) * count), 1e-4, 1.0) * 0.5;
  vec3 shade = materialValues[2].xyz * materialValues[1].y;
  vec3 sum = max(ambientColour.rgb + ambientSlope.rgb * n.y, 0.0);
  int lights = int(lightCount.x);
  for (int i = 0; i < lights; i++) {
    vec3 l;
    vec3 c = arriving(i, l);
    float scaled = clamp(dot(n, l), 0.0, 1.0) * count;
    float border = min(floor(scaled + 0.5), count - 1.0);
    float across = border < 0.5 ? 0.0 : smoothstep(border - edge, border + edge, scaled);
    sum += c * (lightWeights[i].x + lightWeights[i].y * mix(shade, vec3(1.0), max(border - 1.0 + across, 0.0) / (count - 1.0)));
  }
  sum *= base;
  if (fogColour.w > 0.0) sum = mix(fogColour.rgb, sum, exp(-fogColour.w * length(eyePosition.xyz - worldPosition)));
  pixel = vec4(sum, 1.0);
}
`;
