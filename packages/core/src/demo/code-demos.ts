import type { BrelvinDocument, Material } from '@brelvin/contract';
import { newFunction } from '../catalogue/function-uses';
import { newCodeMaterial } from '../compile/code/new-code';
import { SHARED_SURROUNDINGS } from '../document/shared-surroundings';

const SEEN: Material['seenIn'] = SHARED_SURROUNDINGS;

/** Materials that are written as code, and a function that one of them imports. */
export const CODE_DEMOS: readonly { readonly id: string; readonly document: BrelvinDocument }[] = [
  { id: 'function-toon-light', document: newFunction('toonLight', toonLight()) },
  { id: 'material-signal-flag', document: signalFlag() },
  { id: 'material-puppet-sash', document: puppetSash() },
  { id: 'material-slate-of-tides', document: slateOfTides() },
];

/** Blinn-Phong as a beginner writes it, one thought a line. */
function slateOfTides(): BrelvinDocument {
  const text = `/** Slate: the dry stone, without shine. @colour 0.075 0.105 0.125 @heading Stone */
uniform vec3 slate;
/** Shine: how much light the wet film sends back. @colour 0.32 0.36 0.38 @heading Wetness */
uniform vec3 shine;
/** Polish: the larger, the smaller the spot. @value 48 in 1..200 @heading Wetness */
uniform float polish;

Lit paint(Surface s) {
  Lit lit = darkness();
  // A little light comes from everywhere.
  vec3 around = ambientHere(s.normal);

  for (int i = 0; i < lightsInUse(); i++) {
    LightHere light = lightHere(i);
    around += light.ambient;

    // Squarely lit is bright, at a slant is dim, from behind is dark.
    float facing = dot(s.normal, light.toLight);
    if (facing > 0.0) {
      lit.diffuse += slate * light.diffuse * light.shadow * facing;

      // The spot: where the normal lies half way between light and eye.
      vec3 halfVector = normalize(light.toLight + s.toEye);
      float spot = pow(max(dot(s.normal, halfVector), 0.0), polish);
      lit.specular += shine * light.specular * light.shadow * spot;
    }
  }

  lit.ambient = slate * around;
  return lit;
}
`;
  return {
    ...newCodeMaterial('Slate of tides', SEEN, { text }),
    variants: {
      low: { name: 'Low tide', order: 0, values: { 'u-slate': [0.13, 0.15, 0.16], 'u-shine': [0.03, 0.03, 0.03], 'u-polish': 8 } },
      high: { name: 'High tide', order: 1, values: { 'u-slate': [0.075, 0.105, 0.125], 'u-shine': [0.32, 0.36, 0.38], 'u-polish': 48 } },
    },
    notes: 'The loft writes tide times on it.',
  };
}

function toonLight(): string {
  return `/**
 * Toon light: light in flat steps, its shade lifted and tinted.
 * @family Light
 * @source Lake, Marshall, Harris, Blackstein 2000, "Stylized rendering techniques for scalable real-time 3D animation", NPAR, section 3 (light in steps)
 * @inlet colour colour "Colour" = 0.8 0.8 0.8
 * @inlet normal normal "Normal" = surface normal
 * @inlet strength fraction "Strength" = 0.85 in 0..1: 0 is smooth light, 1 is flat steps.
 * @inlet lowest fraction "Floor" = 0.3 in 0..1: how bright the shade is.
 * @inlet tint colour "Tint" = 0.45 0.4 0.75: what the shade leans to.
 * @inlet detail count "Detail" = 3 in 1..12: steps between shade and light.
 * @outlet result light "Light"
 */
Lit toonLight(vec3 colour, vec3 normal, float strength, float lowest, vec3 tint, float detail) {
  vec3 sum = vec3(0.0);
  for (int i = 0; i < lightsInUse(); i++) {
    LightHere light = lightHere(i);
    float facing = clamp(dot(normal, light.toLight), 0.0, 1.0) * light.shadow;
    float lit = mix(facing, inSteps(facing, detail), strength);
    sum += light.diffuse * mix(tint * lowest, vec3(1.0), lit);
  }
  Lit result = darkness();
  result.diffuse = seenBase(colour) * sum;
  result.ambient = seenBase(colour) * ambientHere(normal);
  return result;
}

// 0…1 in so many steps, of which the lowest is 0 and the highest 1.
float inSteps(float value, float steps) {
  float count = max(floor(steps), 1.0);
  return min(floor(value * (count + 1.0)), count) / count;
}
`;
}

/** Cloth round the puppet's waist: a function of the Library with its numbers as parameters. */
function puppetSash(): BrelvinDocument {
  const text = `import toonLight;

/** Cloth: the sash under white light. @colour #b5493a */
uniform vec3 cloth;
/** Strength: 0 is smooth light, 1 is flat steps. @value 0.9 in 0..1 @heading Toon */
uniform float strength;
/** Floor: how bright the shade is. @value 0.42 in 0..1 @heading Toon */
uniform float lowest;
/** Tint: what the shade leans to. @colour 0.36 0.3 0.62 @heading Toon */
uniform vec3 tint;
/** Detail: steps between shade and light. @value 3 in 1..12 @heading Toon */
uniform int detail;
/** Stripes: how many are woven in. @value 14 in 0..40 @heading Weave */
uniform float stripes;

Lit paint(Surface s) {
  float woven = smoothstep(-0.2, 0.2, sin(s.place.y * stripes * 6.2831853));
  vec3 dyed = mix(cloth, cloth * cloth, woven);
  return toonLight(dyed, s.normal, strength, lowest, tint, float(detail));
}
`;
  return {
    ...newCodeMaterial('Puppet sash', SEEN, { text }),
    tags: ['puppet'],
    notes: 'Its light is the function toonLight of the Library.',
  };
}

/** The smallest program in the standard's manner: a vertex stage, a pixel stage, nothing else. */
function signalFlag(): BrelvinDocument {
  const text = `in vec2 place;
out vec4 pixel;

void main() {
  pixel = vec4(place.x < 0.5 ? vec3(0.85, 0.62, 0.05) : vec3(0.02, 0.09, 0.3), 1.0);
}
`;
  const vertices = `in vec3 position;
in vec2 uv;
uniform mat4 clipFromObject;
out vec2 place;

void main() {
  place = uv;
  gl_Position = clipFromObject * vec4(position, 1.0);
}
`;
  return { ...newCodeMaterial('Signal flag', SEEN, { text, vertices }), notes: 'Two stages and nothing else: a place to begin from.' };
}
