import type { Row, Rule } from './rule';
import { wgslRules } from './wgsl-rule';

const ONE =
  'abs acos acosh asin asinh atan atanh ceil cos cosh degrees exp exp2 floor fract inverseSqrt log log2 radians round saturate sign sin sinh sqrt tan tanh trunc'.split(
    ' ',
  );
const TWO = 'atan2 max min pow step'.split(' ');
const THREE = 'clamp fma mix smoothstep'.split(' ');
const PACKS: readonly (readonly [name: string, given: string])[] = [
  ['pack2x16snorm', 'vec2f(0.5)'],
  ['pack2x16unorm', 'vec2f(0.5)'],
  ['pack2x16float', 'vec2f(0.5)'],
  ['unpack2x16snorm', '7u'],
  ['unpack2x16unorm', '7u'],
  ['unpack2x16float', '7u'],
];

const BUILTINS: Row[] = [
  ...ONE.map((name): Row => [
    name,
    `var x = 0.5; let a = ${name}(x); let b: vec3f = ${name}(vec3f(x)); _ = a; _ = b;`,
    `let a = ‹${name}(true); _ = a;`
      .replace('‹', name === 'saturate' ? '' : '‹')
      .replace('(true)', name === 'saturate' ? '(‹true)' : '(true)'),
    name === 'saturate' ? '"saturate" takes f32' : `"${name}" does not take (bool)`,
  ]),
  ...TWO.map((name): Row => [
    name,
    `var x = 0.5; let a = ${name}(x, 2.0); let b: vec2f = ${name}(vec2f(x), vec2f(1.0)); _ = a; _ = b;`,
    `var x = vec2f(0.5); let a = ‹${name}(x, 1.0); _ = a;`,
    'does not take',
  ]),
  ...THREE.map((name): Row => [
    name,
    `var x = 0.5; let a = ${name}(x, 0.0, 1.0); let b: vec2f = ${name}(vec2f(x), vec2f(0.0), vec2f(1.0)); _ = a; _ = b;`,
    `var x = 0.5; let a = ‹${name}(x, 1.0); _ = a;`,
    name === 'fma' ? 'takes 3 values, 2 are given' : `"${name}" does not take (f32, a number with a point)`,
  ]),
  ...PACKS.map(([name, given]): Row => [name, `let a = ${name}(${given}); _ = a;`, `let a = ‹${name}(true); _ = a;`, 'does not take']),
  ...['abs', 'min', 'max', 'clamp', 'sign'].map((name): Row => [
    `${name} of whole numbers`,
    `var x = -3; let a: i32 = ${name}(x${name === 'clamp' ? ', 0, 1' : name === 'min' || name === 'max' ? ', 2' : ''}); _ = a;`,
    `var x = -3; let a = ‹${name}(${name === 'clamp' ? 'x, 0, 1.5' : name === 'min' || name === 'max' ? 'x, 2.5' : 'true'}); _ = a;`,
    'does not take',
  ]),
  ['dot', 'let a: f32 = dot(vec3f(1.0), vec3f(2.0)); _ = a;', 'let a = ‹dot(vec3f(1.0), vec2f(2.0)); _ = a;', 'does not take'],
  ['cross', 'let a: vec3f = cross(vec3f(1.0), vec3f(2.0)); _ = a;', 'let a = ‹cross(vec2f(1.0), vec2f(2.0)); _ = a;', 'does not take'],
  [
    'length and distance',
    'let a = length(vec2f(1.0)) + distance(vec3f(1.0), vec3f(2.0)); _ = a;',
    'let a = ‹length(true); _ = a;',
    'does not take',
  ],
  [
    'normalize, reflect, refract',
    'let n = normalize(vec3f(1.0, 2.0, 3.0)); let r = reflect(n, n) + refract(n, n, 0.7) + faceForward(n, n, n); _ = r;',
    'let a = ‹reflect(vec3f(1.0)); _ = a;',
    'does not take',
  ],
  [
    'transpose and determinant',
    'let m = mat2x2f(1.0, 2.0, 3.0, 4.0); let a = determinant(transpose(m)); _ = a;',
    'let a = ‹determinant(vec2f(1.0)); _ = a;',
    'does not take',
  ],
  ['all and any', 'let a = all(vec2<bool>(true, false)) || any(vec3<bool>(true)); _ = a;', 'let a = ‹all(1.0); _ = a;', 'does not take'],
  [
    'select',
    'let a = select(1.0, 2.0, true); let b = select(vec2i(1), vec2i(2), vec2<bool>(true, false)); _ = a; _ = b;',
    'let a = ‹select(1.0, 2i, true); _ = a;',
    'one type',
  ],
  ['select by a bool', 'let a = select(vec2f(1.0), vec2f(2.0), true); _ = a;', 'let a = select(1.0, 2.0, ‹1.0); _ = a;', 'takes a bool'],
  [
    'bitcast',
    'let a = bitcast<u32>(1.0f); let b = bitcast<vec2f>(vec2u(1u)); _ = a; _ = b;',
    'let a = ‹bitcast<vec2f>(1u); _ = a;',
    'cannot be',
  ],
  ['modf', 'let a = modf(1.5).fract + modf(1.5).whole; _ = a;', 'let a = modf(1.5).‹rest; _ = a;', 'fract'],
  [
    'derivatives',
    'pixel.x = dpdx(pixel.y) + dpdy(pixel.y) + fwidth(pixel.y) + dpdxCoarse(pixel.x) + dpdxFine(pixel.x) + dpdyCoarse(pixel.x) + dpdyFine(pixel.x) + fwidthCoarse(pixel.x) + fwidthFine(pixel.x);',
    'let a = ‹dpdx(true); _ = a;',
    'does not take',
  ],
  ['names of other languages', 'let a = mix(1.0, 2.0, 0.5); _ = a;', 'let a = ‹lerp(1.0, 2.0, 0.5); _ = a;', 'another language'],
  ['a name nearly right', 'let a = smoothstep(0.0, 1.0, 0.5); _ = a;', 'let a = ‹smothstep(0.0, 1.0, 0.5); _ = a;', 'no function'],
];

/** Each built-in function, and a call of each that is wrong. */
export const WGSL_BUILTIN_RULES: readonly Rule[] = wgslRules('Built-in functions', BUILTINS);
