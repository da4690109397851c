import type { Builtin, Expression } from '../../../ir/ir';
import { componentCount, scalarOf, type Type } from '../../../ir/types';
import { wgslTypeName } from '../../wgsl/wgsl-types';
import { NotInWgsl } from './not-in-wgsl';
import { bare, printWgsl, spreadTo, type WgslNames } from './print-wgsl-expression';

/** Functions of the IR that WGSL calls otherwise. */
const RENAMED: Readonly<Record<string, string>> = {
  inversesqrt: 'inverseSqrt',
  faceforward: 'faceForward',
  dFdx: 'dpdx',
  dFdy: 'dpdy',
  roundEven: 'round',
  packSnorm2x16: 'pack2x16snorm',
  packUnorm2x16: 'pack2x16unorm',
  packHalf2x16: 'pack2x16float',
  unpackSnorm2x16: 'unpack2x16snorm',
  unpackUnorm2x16: 'unpack2x16unorm',
  unpackHalf2x16: 'unpack2x16float',
};

const RELATIONS: Readonly<Record<string, string>> = {
  equal: '==',
  notEqual: '!=',
  lessThan: '<',
  lessThanEqual: '<=',
  greaterThan: '>',
  greaterThanEqual: '>=',
};

/** Functions that take a number beside vectors. */
const SPREADS = new Set(['min', 'max', 'clamp', 'step', 'smoothstep']);

/** A built-in function of the IR in WGSL. */
export function printWgslBuiltin(expression: Builtin, names: WgslNames): string {
  const { name, args, type } = expression;
  const write = (each: Expression | undefined): string => (each ? printWgsl(each, names) : '');
  const [a, b, c] = args;
  const relation = Object.hasOwn(RELATIONS, name) ? RELATIONS[name] : undefined;
  if (relation) return `(${write(a)} ${relation} ${write(b)})`;
  if (a?.type.kind === 'sampler') return printRead(expression, names);
  switch (name) {
    case 'not':
      return `(!${write(a)})`;
    case 'mod':
      return `(${write(a)} - ${write(b)} * floor(${write(a)} / ${write(b)}))`;
    case 'mix':
      return c && scalarOf(c.type) === 'bool' ? `select(${list([a, b, c], names)})` : `mix(${list(args, names)})`;
    case 'atan':
      return `${args.length === 2 ? 'atan2' : 'atan'}(${list(args, names)})`;
    case 'isnan':
      return `(${write(a)} != ${write(a)})`;
    case 'isinf':
      return `(abs(${write(a)}) > ${spread(a?.type, '3.4028234e38')})`;
    case 'floatBitsToInt':
    case 'floatBitsToUint':
    case 'intBitsToFloat':
    case 'uintBitsToFloat':
      return `bitcast<${wgslTypeName(type)}>(${a ? bare(a, names) : ''})`;
    case 'matrixCompMult':
    case 'outerProduct':
      return columns(type, (column) =>
        name === 'outerProduct' ? `${write(a)} * ${write(b)}[${column}]` : `${write(a)}[${column}] * ${write(b)}[${column}]`,
      );
    case 'inverse':
      throw new NotInWgsl('inverse of a matrix');
  }
  const called = Object.hasOwn(RENAMED, name) ? (RENAMED[name] ?? name) : name;
  // A single number stands for all components, but not in WGSL.
  return `${called}(${args.map((arg) => (SPREADS.has(name) ? spreadTo(arg, type, names) : bare(arg, names))).join(', ')})`;
}

function list(args: readonly (Expression | undefined)[], names: WgslNames): string {
  return args.map((arg) => (arg ? bare(arg, names) : '')).join(', ');
}

function spread(type: Type | undefined, number: string): string {
  return type?.kind === 'vector' ? `${wgslTypeName(type)}(${number})` : number;
}

function columns(type: Type, part: (column: number) => string): string {
  if (type.kind !== 'matrix') return '';
  return `${wgslTypeName(type)}(${Array.from({ length: type.columns }, (_, column) => part(column)).join(', ')})`;
}

/** Reads of images: GLSL has one name with many forms, WGSL many names. */
function printRead({ name, args }: Builtin, names: WgslNames): string {
  const [image, place, ...rest] = args;
  if (image?.op !== 'reference' || !place) throw new NotInWgsl('an image that is chosen');
  const map = image.scope === 'global' ? names.global(image.name) : names.local(image.name);
  const sampler = names.samplerOf(image.name);
  if (image.type.kind === 'sampler' && (image.type.name.endsWith('Shadow') || image.type.name.includes('Array')))
    throw new NotInWgsl(`reading a ${image.type.name}`);
  const more = (list: readonly (Expression | undefined)[]): string => list.map((each) => (each ? `, ${bare(each, names)}` : '')).join('');
  if (name === 'textureSize') return `vec${componentCount(place.type) === 1 ? 2 : 3}i(textureDimensions(${map}, ${bare(place, names)}))`;
  if (name === 'texelFetch') return `textureLoad(${map}, ${bare(place, names)}${more(rest)})`;
  if (name === 'texelFetchOffset')
    return `textureLoad(${map}, ${printWgsl(place, names)} + ${rest[1] ? printWgsl(rest[1], names) : ''}${more([rest[0]])})`;
  const projected = name.includes('Proj');
  const size = image.type.kind === 'sampler' && image.type.name.includes('2D') ? 2 : 3;
  const at = projected
    ? `${printWgsl(place, names)}.${'xyz'.slice(0, size)} / ${printWgsl(place, names)}.${'xyzw'[componentCount(place.type) - 1] ?? 'z'}`
    : bare(place, names);
  const offset = name.endsWith('Offset');
  const kind = name
    .replace(/^texture/, '')
    .replace('Proj', '')
    .replace('Offset', '');
  if (kind === 'Lod') return `textureSampleLevel(${map}, ${sampler}, ${at}${more(rest)})`;
  if (kind === 'Grad') return `textureSampleGrad(${map}, ${sampler}, ${at}${more(rest)})`;
  // Behind an offset may stand a bias; WGSL wants it before.
  const [moved, bias] = offset ? [rest[0], rest[1]] : [undefined, rest[0]];
  if (bias) return `textureSampleBias(${map}, ${sampler}, ${at}${more([bias, moved])})`;
  return `textureSample(${map}, ${sampler}, ${at}${more([moved])})`;
}
