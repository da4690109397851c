import { typeName } from '../ir/types';
import { BUILTINS } from './builtins';

/** What built-in functions do; sections of the GLSL ES 3.00 specification. */
const HELP: Readonly<Record<string, readonly [section: string, help: string]>> = {
  radians: ['8.1', 'Degrees as radians.'],
  degrees: ['8.1', 'Radians as degrees.'],
  sin: ['8.1', 'The sine of an angle in radians.'],
  cos: ['8.1', 'The cosine of an angle in radians.'],
  tan: ['8.1', 'The tangent of an angle in radians.'],
  asin: ['8.1', 'The angle whose sine this is, −π/2 to π/2. Not defined beyond −1…1.'],
  acos: ['8.1', 'The angle whose cosine this is, 0 to π. Not defined beyond −1…1.'],
  atan: ['8.1', 'The angle whose tangent this is; with two numbers, the angle of the direction (x = second, y = first).'],
  sinh: ['8.1', 'The hyperbolic sine.'],
  cosh: ['8.1', 'The hyperbolic cosine.'],
  tanh: ['8.1', 'The hyperbolic tangent.'],
  asinh: ['8.1', 'The number whose hyperbolic sine this is.'],
  acosh: ['8.1', 'The number whose hyperbolic cosine this is. Not defined below 1.'],
  atanh: ['8.1', 'The number whose hyperbolic tangent this is. Not defined beyond −1…1.'],
  pow: ['8.2', 'The first to the power of the second. Not defined for negative numbers.'],
  exp: ['8.2', 'e to the power of this.'],
  log: ['8.2', 'The natural logarithm. Not defined at or below 0.'],
  exp2: ['8.2', '2 to the power of this.'],
  log2: ['8.2', 'The logarithm to the base 2. Not defined at or below 0.'],
  sqrt: ['8.2', 'The square root. Not defined below 0.'],
  inversesqrt: ['8.2', '1 / sqrt(x). Not defined at or below 0.'],
  abs: ['8.3', 'The number without its sign.'],
  sign: ['8.3', '1, 0 or −1.'],
  floor: ['8.3', 'The next whole number downwards.'],
  ceil: ['8.3', 'The next whole number upwards.'],
  round: ['8.3', 'The nearest whole number; halves go either way.'],
  roundEven: ['8.3', 'The nearest whole number; halves go to the even one.'],
  trunc: ['8.3', 'The whole part, towards 0.'],
  fract: ['8.3', 'What is above the next whole number downwards: x − floor(x).'],
  mod: ['8.3', 'The rest of a division, with the sign of the second: x − y·floor(x/y).'],
  min: ['8.3', 'The smaller one.'],
  max: ['8.3', 'The larger one.'],
  clamp: ['8.3', 'Kept between the second and the third.'],
  mix: ['8.3', 'From the first (at 0) to the second (at 1): x·(1 − a) + y·a.'],
  step: ['8.3', '0 below the edge (first), 1 from it on.'],
  smoothstep: ['8.3', '0 below the first, 1 above the second, a smooth curve between.'],
  isnan: ['8.3', 'Whether it is no number.'],
  isinf: ['8.3', 'Whether it is infinite.'],
  floatBitsToUint: ['8.3', 'The bits of a float as a whole number.'],
  uintBitsToFloat: ['8.3', 'The float that has these bits.'],
  floatBitsToInt: ['8.3', 'The bits of a float as a whole number with a sign.'],
  intBitsToFloat: ['8.3', 'The float that has these bits.'],
  length: ['8.5', 'How long a vector is.'],
  distance: ['8.5', 'How far two points are apart.'],
  dot: ['8.5', 'The dot product: for unit vectors the cosine of the angle between.'],
  cross: ['8.5', 'The vector at right angles to both.'],
  normalize: ['8.5', 'The same direction, 1 long. Not defined for a vector of length 0.'],
  faceforward: ['8.5', 'The first, turned round if the third and the second point the same way.'],
  reflect: ['8.5', 'A direction that travels towards the surface, mirrored at its unit normal: I − 2·dot(N, I)·N.'],
  refract: ['8.5', 'A unit direction that travels into the surface, bent by the ratio of indices of refraction; 0 where all is reflected.'],
  matrixCompMult: ['8.6', 'Component by component, unlike *.'],
  outerProduct: ['8.6', 'The matrix of all products of a component of one and one of the other.'],
  transpose: ['8.6', 'Rows and columns exchanged.'],
  determinant: ['8.6', 'By how much the matrix scales volume; negative where it mirrors.'],
  inverse: ['8.6', 'The matrix that takes it back. Not defined where the determinant is 0.'],
  any: ['8.7', 'Whether any component is true.'],
  all: ['8.7', 'Whether all components are true.'],
  not: ['8.7', 'Each component turned round.'],
  lessThan: ['8.7', 'Component by component: whether the first is smaller.'],
  lessThanEqual: ['8.7', 'Component by component: whether the first is not larger.'],
  greaterThan: ['8.7', 'Component by component: whether the first is larger.'],
  greaterThanEqual: ['8.7', 'Component by component: whether the first is not smaller.'],
  equal: ['8.7', 'Component by component: whether both are equal.'],
  notEqual: ['8.7', 'Component by component: whether they differ.'],
  texture: ['8.8', 'An image at a place (0, 0 is its top left corner), its size chosen by how densely neighbouring pixels lie.'],
  textureProj: ['8.8', 'An image at a place that is divided by its last component first.'],
  textureLod: ['8.8', 'An image at a place, in a size of its own: 0 is the finest.'],
  textureGrad: ['8.8', 'An image at a place, its size chosen by the differences given.'],
  texelFetch: ['8.8', 'One texel by its column and row, unfiltered.'],
  textureSize: ['8.8', 'Width and height of an image in texels, at a size.'],
  dFdx: ['8.9', 'The difference to the neighbouring pixel on the right. 0 at the vertices.'],
  dFdy: [
    '8.9',
    'The difference to the neighbouring pixel below; in a whole program, as the standard has it, to the one above. 0 at the vertices.',
  ],
  fwidth: ['8.9', 'abs(dFdx(x)) + abs(dFdy(x)): how much it changes over a pixel.'],
};

/** What can be read about a built-in function. */
export interface BuiltinHelp {
  readonly name: string;
  readonly signatures: readonly string[];
  readonly help: string;
  readonly source: string;
}

export function builtinHelp(name: string): BuiltinHelp | undefined {
  const overloads = BUILTINS.get(name);
  const [section, help] = (Object.hasOwn(HELP, name) ? HELP[name] : undefined) ?? [];
  if (!overloads || section === undefined || help === undefined) return undefined;
  const signatures = overloads.map(({ result, parameters }) => `${typeName(result)} ${name}(${parameters.map(typeName).join(', ')})`);
  return { name, signatures, help, source: `GLSL ES 3.00 specification, section ${section}` };
}

export const BUILTIN_NAMES: readonly string[] = [...BUILTINS.keys()];
