/**
 * Surface programs as an experienced person would write them for exactly one purpose: the reference for the
 * cost of generated ones. Same inputs, same uniform blocks, same passes.
 */
const HEAD = `#version 300 es
precision highp float;
precision highp int;
uniform vec4 deviceTarget;
layout(std140) uniform Frame { mat4 clipFromWorld; mat4 viewFromWorld; vec4 eyePosition; vec4 targetSize; vec4 pictureCorner; vec4 fogColour; float frameTime; };
layout(std140) uniform Lights { vec4 ambientColour; vec4 ambientSlope; vec4 sunDirection; vec4 sunColour; vec4 environmentTurn; vec4 environmentLight[9]; vec4 lightCount; vec4 lightPlace[8]; vec4 lightColour[8]; vec4 lightAxis[8]; vec4 lightFalloff[8]; vec4 lightParts[24]; mat4 shadowFromWorld[4]; vec4 shadowInfo[4]; };
`;

/** `vectors`: the size of the material's block, as the generated program has it. */
const fragment = (vectors: number): string => `${HEAD}
layout(std140) uniform Material { vec4 materialValues[${vectors}]; };
in vec3 worldPosition;
in vec3 worldNormal;
layout(location = 0) out vec4 pixel;
// What is left of a sun, point or spot by falloff and cone; colours, tints and weights are multiplied in the block.
float arriving(int i, out vec3 l) {
  vec4 p = lightPlace[i];
  float c = 1.0;
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
vec3 intoEnvironment(vec3 d) {
  return vec3(environmentTurn.x * d.x - environmentTurn.y * d.z, d.y, environmentTurn.y * d.x + environmentTurn.x * d.z);
}
vec3 around(vec3 n) {
  vec3 sky = max(ambientColour.rgb + ambientSlope.rgb * n.y, 0.0);
  if (environmentTurn.z <= 0.0) return sky;
  vec3 d = intoEnvironment(n);
  return sky + max(environmentLight[0].rgb * 0.282095
    + (environmentLight[1].rgb * d.y + environmentLight[2].rgb * d.z + environmentLight[3].rgb * d.x) * 0.488603
    + (environmentLight[4].rgb * (d.x * d.y) + environmentLight[5].rgb * (d.y * d.z) + environmentLight[7].rgb * (d.x * d.z)) * 1.092548
    + environmentLight[6].rgb * (0.315392 * (3.0 * d.z * d.z - 1.0)) + environmentLight[8].rgb * (0.546274 * (d.x * d.x - d.y * d.y)), 0.0);
}
`;

export const BLINN_PHONG = `${fragment(3)}
void main() {
  vec3 n = normalize(gl_FrontFacing ? worldNormal : -worldNormal);
  vec3 v = normalize(eyePosition.xyz - worldPosition);
  vec3 base = materialValues[0].xyz;
  vec3 specular = materialValues[1].xyz;
  float exponent = materialValues[0].w;
  vec3 sum = base * around(n);
  int count = int(lightCount.x);
  for (int i = 0; i < count; i++) {
    vec3 l;
    float c = arriving(i, l);
    float nl = dot(n, l);
    sum += base * (lightParts[3 * i].rgb * c);
    if (nl > 0.0)
      sum += base * (lightParts[3 * i + 1].rgb * (nl * c))
        + specular * (lightParts[3 * i + 2].rgb * (c * pow(max(dot(n, normalize(l + v)), 0.0), exponent)));
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
  vec3 sum = around(n);
  int lights = int(lightCount.x);
  for (int i = 0; i < lights; i++) {
    vec3 l;
    float c = arriving(i, l);
    float scaled = clamp(dot(n, l), 0.0, 1.0) * count;
    float border = min(floor(scaled + 0.5), count - 1.0);
    float across = border < 0.5 ? 0.0 : smoothstep(border - edge, border + edge, scaled);
    sum += c * (lightParts[3 * i].rgb + lightParts[3 * i + 1].rgb * mix(shade, vec3(1.0), max(border - 1.0 + across, 0.0) / (count - 1.0)));
  }
  sum *= base;
  if (fogColour.w > 0.0) sum = mix(fogColour.rgb, sum, exp(-fogColour.w * length(eyePosition.xyz - worldPosition)));
  pixel = vec4(sum, 1.0);
}
`;

export const METAL_ROUGH = `${fragment(2)}
uniform samplerCube environmentCube;
uniform highp sampler2D splitSum;
void main() {
  vec3 n = normalize(gl_FrontFacing ? worldNormal : -worldNormal);
  vec3 v = normalize(eyePosition.xyz - worldPosition);
  vec3 base = clamp(materialValues[0].xyz, 0.0, 1.0);
  float metal = clamp(materialValues[0].w, 0.0, 1.0);
  float rough = clamp(materialValues[1].x, 0.03, 1.0);
  float open = clamp(materialValues[1].y, 0.0, 1.0);
  float a2 = rough * rough * rough * rough;
  float nv = clamp(dot(n, v), 1e-3, 1.0);
  vec2 ab = textureLod(splitSum, vec2(sqrt(nv), rough) * 0.984375 + 0.0078125, 0.0).xy;
  float e = ab.x + ab.y;
  float lost = 1.0 - min(e, 1.0);
  // f0 of 0.04 and its mean over all angles are known.
  float manyPlain = 1.0 / (1.0 - (0.04 + 0.96 / 21.0) * lost);
  vec3 manyMetal = 1.0 / (1.0 - (base + (1.0 - base) / 21.0) * lost);
  vec3 steady = mix(vec3(0.04 * manyPlain), base * manyMetal, metal);
  vec3 growing = mix(vec3(0.96 * manyPlain), (1.0 - base) * manyMetal, metal);
  float matte = (1.0 - metal) * (1.0 - manyPlain * (0.04 * e + 0.96 * ab.y));
  vec3 ambient = around(n);
  vec3 scattered = vec3(0.0);
  vec3 shine = vec3(0.0);
  int count = int(lightCount.x);
  for (int i = 0; i < count; i++) {
    vec3 l;
    float c = arriving(i, l);
    ambient += lightParts[3 * i].rgb * c;
    float nl = dot(n, l);
    if (nl > 0.0) {
      vec3 h = normalize(l + v);
      float nh = clamp(dot(n, h), 0.0, 1.0);
      float f = nh * nh * (a2 - 1.0) + 1.0;
      float lobe = a2 / (f * f) * 0.5 / (nl * sqrt(nv * nv * (1.0 - a2) + a2) + nv * sqrt(nl * nl * (1.0 - a2) + a2));
      float g = 1.0 - clamp(dot(v, h), 0.0, 1.0);
      float g2 = g * g;
      scattered += lightParts[3 * i + 1].rgb * (nl * c);
      shine += (steady + growing * (g2 * g2 * g)) * lightParts[3 * i + 2].rgb * (c * nl * lobe);
    }
  }
  float sharp = clamp(materialValues[1].x, 0.0, 1.0);
  vec3 r = reflect(-v, n);
  vec3 mirrored = max(ambientColour.rgb + ambientSlope.rgb * r.y, 0.0);
  if (environmentTurn.z > 0.0)
    mirrored += textureLod(environmentCube, intoEnvironment(r), environmentTurn.w * sharp * (1.5 - 0.5 * sharp)).rgb * environmentTurn.z;
  float hidden = clamp(pow(max(nv + open, 1e-4), exp2(-16.0 * rough - 1.0)) - 1.0 + open, 0.0, 1.0);
  vec3 sum = base * (ambient * open + scattered) * matte + shine + (steady * e + growing * ab.y) * mirrored * hidden;
  sum = clamp(sum, -6.0e4, 6.0e4);
  if (fogColour.w > 0.0) sum = mix(fogColour.rgb, sum, exp(-fogColour.w * length(eyePosition.xyz - worldPosition)));
  pixel = vec4(sum, 1.0);
}
`;
