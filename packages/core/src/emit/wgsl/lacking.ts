import { signatureOf } from '../../ir/build';
import type { Builtin, IrFunction } from '../../ir/ir';
import { elaborate } from '../../language';
import { ownName } from './own-function';

/** Numbers of every size that a formula is written for, with the unsigned and the yes-or-no of as many. */
const SIZES = [
  ['float', 'uint', 'bool'],
  ['vec2', 'uvec2', 'bvec2'],
  ['vec3', 'uvec3', 'bvec3'],
  ['vec4', 'uvec4', 'bvec4'],
] as const;

/**
 * Built-in functions of the intermediate form that WGSL does not have, or not for these types, after GLSL ES 3.00, section 8.
 * The inverse of a matrix is its adjugate by its determinant.
 */
const TEXT = `
${SIZES.map(([type]) => `${type} moduloOf(${type} a, ${type} b) { return a - b * floor(a / b); }`).join('\n')}
${SIZES.slice(1)
  .map(([type]) => `${type} moduloOf(${type} a, float b) { return a - b * floor(a / b); }`)
  .join('\n')}
bool isNoNumber(float a) { return (floatBitsToUint(a) & 0x7fffffffu) > 0x7f800000u; }
bool isEndless(float a) { return (floatBitsToUint(a) & 0x7fffffffu) == 0x7f800000u; }
${SIZES.slice(1)
  .flatMap(([type, unsigned, yes]) => [
    `${yes} isNoNumber(${type} a) { return greaterThan(floatBitsToUint(a) & ${unsigned}(0x7fffffffu), ${unsigned}(0x7f800000u)); }`,
    `${yes} isEndless(${type} a) { return equal(floatBitsToUint(a) & ${unsigned}(0x7fffffffu), ${unsigned}(0x7f800000u)); }`,
  ])
  .join('\n')}
float dotOf(float a, float b) { return a * b; }
float normalOf(float a) { return sign(a); }
float towards(float normal, float incident, float reference) { return reference * incident < 0.0 ? normal : -normal; }
float mirrored(float incident, float normal) { return incident - 2.0 * normal * incident * normal; }
float refracted(float incident, float normal, float ratio) {
  float along = normal * incident;
  float k = 1.0 - ratio * ratio * (1.0 - along * along);
  return k < 0.0 ? 0.0 : ratio * incident - (ratio * along + sqrt(k)) * normal;
}
mat2 inverseOf(mat2 m) {
  return mat2(m[1][1], -m[0][1], -m[1][0], m[0][0]) * (1.0 / (m[0][0] * m[1][1] - m[1][0] * m[0][1]));
}
mat3 inverseOf(mat3 m) {
  vec3 x = cross(m[1], m[2]);
  vec3 y = cross(m[2], m[0]);
  vec3 z = cross(m[0], m[1]);
  return transpose(mat3(x, y, z)) * (1.0 / dot(m[0], x));
}
mat4 inverseOf(mat4 m) {
  float a = m[0][0] * m[1][1] - m[0][1] * m[1][0];
  float b = m[0][0] * m[1][2] - m[0][2] * m[1][0];
  float c = m[0][0] * m[1][3] - m[0][3] * m[1][0];
  float d = m[0][1] * m[1][2] - m[0][2] * m[1][1];
  float e = m[0][1] * m[1][3] - m[0][3] * m[1][1];
  float f = m[0][2] * m[1][3] - m[0][3] * m[1][2];
  float g = m[2][0] * m[3][1] - m[2][1] * m[3][0];
  float h = m[2][0] * m[3][2] - m[2][2] * m[3][0];
  float i = m[2][0] * m[3][3] - m[2][3] * m[3][0];
  float j = m[2][1] * m[3][2] - m[2][2] * m[3][1];
  float k = m[2][1] * m[3][3] - m[2][3] * m[3][1];
  float l = m[2][2] * m[3][3] - m[2][3] * m[3][2];
  mat4 adjugate = mat4(
    m[1][1] * l - m[1][2] * k + m[1][3] * j, m[0][2] * k - m[0][1] * l - m[0][3] * j, m[3][1] * f - m[3][2] * e + m[3][3] * d, m[2][2] * e - m[2][1] * f - m[2][3] * d,
    m[1][2] * i - m[1][0] * l - m[1][3] * h, m[0][0] * l - m[0][2] * i + m[0][3] * h, m[3][2] * c - m[3][0] * f - m[3][3] * b, m[2][0] * f - m[2][2] * c + m[2][3] * b,
    m[1][0] * k - m[1][1] * i + m[1][3] * g, m[0][1] * i - m[0][0] * k - m[0][3] * g, m[3][0] * e - m[3][1] * c + m[3][3] * a, m[2][1] * c - m[2][0] * e - m[2][3] * a,
    m[1][1] * h - m[1][0] * j - m[1][2] * g, m[0][0] * j - m[0][1] * h + m[0][2] * g, m[3][1] * b - m[3][0] * d - m[3][2] * a, m[2][0] * d - m[2][1] * b + m[2][2] * a);
  return adjugate * (1.0 / (a * l - b * k + c * j + d * i - e * h + f * g));
}
`;

/** What a text calls the functions above, by what they stand for. */
const NAMES: Readonly<Record<string, string>> = {
  mod: 'moduloOf',
  isnan: 'isNoNumber',
  isinf: 'isEndless',
  dot: 'dotOf',
  normalize: 'normalOf',
  faceforward: 'towards',
  reflect: 'mirrored',
  refract: 'refracted',
  inverse: 'inverseOf',
};

let read: ReadonlyMap<string, IrFunction> | undefined;

/** The function that stands for a built-in one where WGSL has none. */
export function lackedFunction({ name, args }: Builtin): IrFunction | undefined {
  if (!Object.hasOwn(NAMES, name)) return undefined;
  read ??= readFunctions();
  return read.get(
    signatureOf(
      ownName(name),
      args.map(({ type }) => type),
    ),
  );
}

function readFunctions(): ReadonlyMap<string, IrFunction> {
  const byOwn = new Map(Object.entries(NAMES).map(([name, own]) => [own, ownName(name)]));
  return new Map(
    [...elaborate('wgsl', TEXT).module.functions.values()].map((each) => {
      const name = byOwn.get(each.name) ?? each.name;
      const signature = signatureOf(
        name,
        each.parameters.map(({ type }) => type),
      );
      return [signature, { ...each, name, signature }];
    }),
  );
}
