import { construct, constant, swizzle } from '../../ir/build';
import type { Expression } from '../../ir/ir';
import { BOOL, componentCount, FLOAT, INT, isFloatLike, ofSize, sameType, scalarOf, UINT, vector, type Type } from '../../ir/types';
import { BUILTINS, type BuiltinOverload } from '../builtins';
import { as, distanceTo, settled, type WgslValue } from './wgsl-value';

/** Built-in functions by their names in WGSL (section 17), with what they are in the IR. */
const NAMES: Readonly<Record<string, string>> = {
  ...Object.fromEntries(
    `abs acos acosh all any asin asinh atan atanh ceil clamp cos cosh cross degrees determinant distance dot exp exp2 floor fract length log log2
    max min mix normalize pow radians reflect refract sign sin sinh smoothstep sqrt step tan tanh transpose trunc fwidth`
      .split(/\s+/)
      .map((name) => [name, name]),
  ),
  round: 'roundEven',
  inverseSqrt: 'inversesqrt',
  faceForward: 'faceforward',
  atan2: 'atan',
  dpdx: 'dFdx',
  dpdxCoarse: 'dFdx',
  dpdxFine: 'dFdx',
  dpdy: 'dFdy',
  dpdyCoarse: 'dFdy',
  dpdyFine: 'dFdy',
  fwidthCoarse: 'fwidth',
  fwidthFine: 'fwidth',
  pack2x16snorm: 'packSnorm2x16',
  pack2x16unorm: 'packUnorm2x16',
  pack2x16float: 'packHalf2x16',
  unpack2x16snorm: 'unpackSnorm2x16',
  unpack2x16unorm: 'unpackUnorm2x16',
  unpack2x16float: 'unpackHalf2x16',
};

/** Functions of WGSL that are made of others, or read images. */
const MADE = [
  'select',
  'saturate',
  'fma',
  'modf',
  'bitcast',
  'textureSample',
  'textureSampleLevel',
  'textureSampleBias',
  'textureSampleGrad',
  'textureLoad',
  'textureDimensions',
];

/** What is only there with a queue of work groups, or has no counterpart. */
export const LACKED: Readonly<Record<string, string>> = {
  ...Object.fromEntries(
    'countOneBits countLeadingZeros countTrailingZeros firstLeadingBit firstTrailingBit reverseBits extractBits insertBits ldexp frexp quantizeToF16 pack4x8snorm pack4x8unorm unpack4x8snorm unpack4x8unorm textureGather textureGatherCompare textureSampleCompare textureSampleCompareLevel textureNumLevels textureNumLayers textureNumSamples textureSampleBaseClampToEdge'
      .split(' ')
      .map((name) => [name, 'has no counterpart in GLSL ES 3.00, in which materials are also written out']),
  ),
  ...Object.fromEntries(
    'arrayLength atomicLoad atomicStore atomicAdd atomicSub atomicMax atomicMin atomicAnd atomicOr atomicXor atomicExchange storageBarrier workgroupBarrier textureStore workgroupUniformLoad'
      .split(' ')
      .map((name) => [name, 'is for compute shaders and storage; materials have neither']),
  ),
};

export const WGSL_BUILTIN_NAMES: readonly string[] = [...Object.keys(NAMES), ...MADE];

/** What a function of WGSL is called in the IR. */
export function irNameOf(name: string): string | undefined {
  return Object.hasOwn(NAMES, name) ? NAMES[name] : undefined;
}

/** Those whose arguments are all of one type in WGSL, though not in GLSL. */
const ALIKE = new Set(['min', 'max', 'clamp', 'step', 'smoothstep', 'pow', 'atan']);

export interface Overload {
  readonly name: string;
  readonly overload: BuiltinOverload;
}

/** The overload that fits what is given best; also told what there is, where none does. */
export function builtinFor(name: string, args: readonly WgslValue[]): Overload | undefined {
  const irName = irNameOf(name);
  if (!irName) return undefined;
  let best: { readonly overload: BuiltinOverload; readonly cost: number } | undefined;
  for (const overload of overloadsOf(name)) {
    if (overload.parameters.length !== args.length) continue;
    let cost = 0;
    for (const [index, parameter] of overload.parameters.entries())
      cost += distanceTo(args[index] ?? { value: constant(BOOL, [0]) }, parameter) ?? Infinity;
    if (cost < (best?.cost ?? Infinity)) best = { overload, cost };
  }
  return best && { name: irName, overload: best.overload };
}

export function overloadsOf(name: string): readonly BuiltinOverload[] {
  const irName = irNameOf(name) ?? '';
  const all = (BUILTINS.get(irName) ?? []).filter(({ parameters }) => name !== 'atan' || parameters.length === 1);
  const two = name === 'atan2' ? all.filter(({ parameters }) => parameters.length === 2) : all;
  if (!ALIKE.has(irName)) return two;
  return two.filter(({ parameters }) => parameters.every((each) => sameType(each, parameters[0] ?? each)));
}

/** `select(no, yes, condition)`: without a branch, component by component for a vector of conditions. */
export function select(no: Expression, yes: Expression, condition: Expression): Expression | undefined {
  const { type } = no;
  if (sameType(condition.type, BOOL)) return { op: 'conditional', condition, then: yes, else: no, type };
  if (condition.type.kind !== 'vector' || condition.type.scalar !== 'bool' || componentCount(type) !== condition.type.size)
    return undefined;
  if (isFloatLike(type)) return { op: 'builtin', name: 'mix', args: [no, yes, condition], type };
  const scalar = scalarOf(type);
  if (!scalar) return undefined;
  const part = (of: Expression, index: number): Expression => swizzle(of, [index]);
  return construct(
    type,
    Array.from({ length: condition.type.size }, (_, index): Expression => ({
      op: 'conditional',
      condition: part(condition, index),
      then: part(yes, index),
      else: part(no, index),
      type: ofSize(scalar, 1),
    })),
  );
}

/** The bits of a value as another type of as many. */
export function bitcast(value: Expression, type: Type): Expression | undefined {
  const [from, to] = [scalarOf(value.type), scalarOf(type)];
  if (!from || !to || from === 'bool' || to === 'bool' || componentCount(value.type) !== componentCount(type)) return undefined;
  if (from === to) return value;
  const builtin = (name: string): Expression => ({ op: 'builtin', name, args: [value], type });
  if (from === 'float') return builtin(to === 'int' ? 'floatBitsToInt' : 'floatBitsToUint');
  if (to === 'float') return builtin(from === 'int' ? 'intBitsToFloat' : 'uintBitsToFloat');
  return construct(type, [value]);
}

interface ImageRead {
  /** Its name in the IR. */
  readonly name: string;
  /** Whether a sampler stands behind the image. */
  readonly sampled: boolean;
}

export const IMAGE_READS: Readonly<Record<string, ImageRead>> = {
  textureSample: { name: 'texture', sampled: true },
  textureSampleBias: { name: 'texture', sampled: true },
  textureSampleLevel: { name: 'textureLod', sampled: true },
  textureSampleGrad: { name: 'textureGrad', sampled: true },
  textureLoad: { name: 'texelFetch', sampled: false },
  textureDimensions: { name: 'textureSize', sampled: false },
};

/** A read of an image in the IR: places of layers put together, whole numbers of either sign. */
export function imageRead(name: string, given: readonly WgslValue[]): Expression | undefined {
  const read = Object.hasOwn(IMAGE_READS, name) ? IMAGE_READS[name] : undefined;
  const [image, ...rest] = given;
  if (!read || image?.value.type.kind !== 'sampler') return undefined;
  const layered = image.value.type.name.includes('Array');
  const whole = read.name === 'texelFetch' || read.name === 'textureSize';
  const args = rest.map((each) => (whole ? asInt(each) : settled(each)));
  if (read.name === 'textureSize' && args.length === 0) args.push(constant(INT, [0]));
  const [place, layer] = args;
  if (layered && place && layer && read.name !== 'textureSize')
    args.splice(0, 2, construct(whole ? vector(3, 'int') : vector(3), [place, construct(whole ? INT : FLOAT, [layer])]));
  const all = [image.value, ...args.map((each, index) => (whole || index > 0 || !isWhole(each) ? each : construct(FLOAT, [each])))];
  const irName = moved(read, all);
  const overload = BUILTINS.get(irName)?.find(
    ({ parameters }) => parameters.length === all.length && parameters.every((each, index) => sameType(each, all[index]?.type ?? each)),
  );
  if (!overload) return undefined;
  const value: Expression = { op: 'builtin', name: irName, args: all, type: overload.result };
  if (read.name !== 'textureSize') return value;
  return construct(ofSize('uint', componentCount(value.type)), [value]);
}

/** The function of the IR for a read that is moved by some texels: a constant of whole numbers at its end. */
function moved({ name, sampled }: ImageRead, args: Expression[]): string {
  const last = args.at(-1);
  if (!sampled || args.length < 3 || last?.type.kind !== 'vector' || last.type.scalar !== 'int') return name;
  // A bias stands before the offset in WGSL, and behind it in the IR.
  if (name === 'texture' && args.length === 4) args.splice(2, 2, last, args[2] ?? last);
  return `${name}Offset`;
}

function isWhole({ type }: Expression): boolean {
  return sameType(type, INT) || sameType(type, UINT);
}

function asInt(given: WgslValue): Expression {
  const value = settled(given);
  const count = componentCount(value.type);
  return scalarOf(value.type) === 'uint' ? construct(ofSize('int', count), [value]) : (as(given, ofSize('int', count)) ?? value);
}
