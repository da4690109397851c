import { NAMED_TYPES, sameType, type Type } from '../ir/types';

/**
 * Built-in functions of GLSL ES 3.00 (chapter 8). `F`, `I`, `U`, `B` stand for the scalar or a vector of that
 * scalar, all of one size; `V` for a float vector; `M` for a matrix. Other words are type names.
 */
const SIGNATURES: Readonly<Record<string, readonly string[]>> = {
  radians: ['F(F)'],
  degrees: ['F(F)'],
  sin: ['F(F)'],
  cos: ['F(F)'],
  tan: ['F(F)'],
  asin: ['F(F)'],
  acos: ['F(F)'],
  atan: ['F(F)', 'F(F,F)'],
  sinh: ['F(F)'],
  cosh: ['F(F)'],
  tanh: ['F(F)'],
  asinh: ['F(F)'],
  acosh: ['F(F)'],
  atanh: ['F(F)'],
  pow: ['F(F,F)'],
  exp: ['F(F)'],
  log: ['F(F)'],
  exp2: ['F(F)'],
  log2: ['F(F)'],
  sqrt: ['F(F)'],
  inversesqrt: ['F(F)'],
  abs: ['F(F)', 'I(I)'],
  sign: ['F(F)', 'I(I)'],
  floor: ['F(F)'],
  ceil: ['F(F)'],
  round: ['F(F)'],
  roundEven: ['F(F)'],
  trunc: ['F(F)'],
  fract: ['F(F)'],
  mod: ['F(F,F)', 'F(F,float)'],
  min: ['F(F,F)', 'F(F,float)', 'I(I,I)', 'I(I,int)', 'U(U,U)', 'U(U,uint)'],
  max: ['F(F,F)', 'F(F,float)', 'I(I,I)', 'I(I,int)', 'U(U,U)', 'U(U,uint)'],
  clamp: ['F(F,F,F)', 'F(F,float,float)', 'I(I,I,I)', 'I(I,int,int)', 'U(U,U,U)', 'U(U,uint,uint)'],
  mix: ['F(F,F,F)', 'F(F,F,float)', 'F(F,F,B)'],
  step: ['F(F,F)', 'F(float,F)'],
  smoothstep: ['F(F,F,F)', 'F(float,float,F)'],
  isnan: ['B(F)'],
  isinf: ['B(F)'],
  floatBitsToUint: ['U(F)'],
  uintBitsToFloat: ['F(U)'],
  floatBitsToInt: ['I(F)'],
  intBitsToFloat: ['F(I)'],
  length: ['float(F)'],
  distance: ['float(F,F)'],
  dot: ['float(F,F)'],
  cross: ['vec3(vec3,vec3)'],
  normalize: ['F(F)'],
  faceforward: ['F(F,F,F)'],
  reflect: ['F(F,F)'],
  refract: ['F(F,F,float)'],
  matrixCompMult: ['M(M,M)'],
  outerProduct: ['mat2(vec2,vec2)', 'mat3(vec3,vec3)', 'mat4(vec4,vec4)'],
  transpose: ['M(M)'],
  determinant: ['float(M)'],
  inverse: ['M(M)'],
  any: ['bool(B)'],
  all: ['bool(B)'],
  not: ['B(B)'],
  lessThan: ['B(F,F)', 'B(I,I)', 'B(U,U)'],
  lessThanEqual: ['B(F,F)', 'B(I,I)', 'B(U,U)'],
  greaterThan: ['B(F,F)', 'B(I,I)', 'B(U,U)'],
  greaterThanEqual: ['B(F,F)', 'B(I,I)', 'B(U,U)'],
  equal: ['B(F,F)', 'B(I,I)', 'B(U,U)', 'B(B,B)'],
  notEqual: ['B(F,F)', 'B(I,I)', 'B(U,U)', 'B(B,B)'],
  texture: ['vec4(sampler2D,vec2)', 'vec4(samplerCube,vec3)'],
  textureProj: ['vec4(sampler2D,vec3)', 'vec4(sampler2D,vec4)'],
  textureLod: ['vec4(sampler2D,vec2,float)', 'vec4(samplerCube,vec3,float)'],
  textureGrad: ['vec4(sampler2D,vec2,vec2,vec2)', 'vec4(samplerCube,vec3,vec3,vec3)'],
  texelFetch: ['vec4(sampler2D,ivec2,int)'],
  textureSize: ['ivec2(sampler2D,int)', 'ivec2(samplerCube,int)'],
  dFdx: ['F(F)'],
  dFdy: ['F(F)'],
  fwidth: ['F(F)'],
};

/** Compare component by component, so there must be several (GLSL ES 3.00 section 8.7). */
const VECTORS_ONLY = new Set('any all not lessThan lessThanEqual greaterThan greaterThanEqual equal notEqual'.split(' '));

const SCALAR_OF_LETTER: Readonly<Record<string, string>> = { F: 'float', I: 'int', U: 'uint', B: 'bool' };
const SIZES: Readonly<Record<string, readonly string[]>> = {
  F: ['float', 'vec2', 'vec3', 'vec4'],
  I: ['int', 'ivec2', 'ivec3', 'ivec4'],
  U: ['uint', 'uvec2', 'uvec3', 'uvec4'],
  B: ['bool', 'bvec2', 'bvec3', 'bvec4'],
  M: ['mat2', 'mat3', 'mat4'],
};

export interface BuiltinOverload {
  readonly result: Type;
  readonly parameters: readonly Type[];
}

/** Every overload of every built-in, the letters written out. */
export const BUILTINS: ReadonlyMap<string, readonly BuiltinOverload[]> = new Map(
  Object.entries(SIGNATURES).map(([name, patterns]) => [name, patterns.flatMap((pattern) => expand(pattern, VECTORS_ONLY.has(name)))]),
);

function expand(pattern: string, vectorsOnly = false): BuiltinOverload[] {
  const match = /^(\w+)\((.*)\)$/.exec(pattern);
  if (!match) throw new SyntaxError(`malformed signature ${pattern}`);
  const words = [match[1] ?? '', ...(match[2] ?? '').split(',')];
  const generic = words.some((word) => word in SIZES);
  const all = [...Array(words.includes('M') ? 3 : 4).keys()];
  const sizes = generic ? (vectorsOnly ? all.slice(1) : all) : [0];
  return sizes.map((size) => {
    const [result, ...parameters] = words.map((word) => namedType(SIZES[word]?.[size] ?? word));
    if (!result) throw new SyntaxError(`malformed signature ${pattern}`);
    return { result, parameters };
  });
}

function namedType(name: string): Type {
  const type = NAMED_TYPES.get(SCALAR_OF_LETTER[name] ?? name);
  if (!type) throw new SyntaxError(`unknown type ${name} in the table of built-ins`);
  return type;
}

export function findBuiltin(name: string, args: readonly Type[]): BuiltinOverload | undefined {
  return BUILTINS.get(name)?.find(
    ({ parameters }) =>
      parameters.length === args.length && parameters.every((parameter, index) => sameType(parameter, args[index] ?? parameter)),
  );
}

/** Results differ between neighbouring pixels' evaluations: only defined in uniform control flow. */
export const DERIVATIVES: ReadonlySet<string> = new Set(['dFdx', 'dFdy', 'fwidth', 'texture', 'textureProj']);
