import { componentCount, ofSize, sameType, scalarOf, type MatrixType, type ScalarName, type Type } from '../../../ir/types';
import type { Builtin, Expression } from '../../../ir/ir';
import { wgslTypeName } from '../../wgsl/wgsl-types';
import type { PrintedNames } from '../print-expression';
import { NotInWgsl } from './not-in-wgsl';

/** What an expression of WGSL needs to know of the function around it. */
export interface WgslNames extends PrintedNames {
  /** Whether a name is a pointer here: a parameter that is written to. */
  isPointer(name: string): boolean;
  /** The sampler that reads an image. */
  samplerOf(image: string): string;
  /** A call that writes to some of its arguments: what has to stand before it goes to the statements. */
  call(expression: Extract<Expression, { op: 'call' }>, args: readonly string[]): string;
}

/** One expression in WGSL; nested operations are bracketed. */
export function printWgsl(expression: Expression, names: WgslNames): string {
  const write = (each: Expression): string => printWgsl(each, names);
  switch (expression.op) {
    case 'constant':
      return printWgslConstant(expression.type, expression.value);
    case 'reference':
      if (expression.scope === 'global') return names.global(expression.name);
      return names.isPointer(expression.name) ? `(*${names.local(expression.name)})` : names.local(expression.name);
    case 'call':
      return names.call(
        expression,
        expression.args.map((arg) => argument(arg, names)),
      );
    case 'builtin':
      return printWgslBuiltin(expression, names);
    case 'unary': {
      const { operator, value } = expression;
      // WGSL has no − for unsigned numbers; 0 − x is the same.
      if (operator === '-' && scalarOf(value.type) === 'uint') return `(${zero(value.type)} - ${write(value)})`;
      return `(${operator}${write(value)})`;
    }
    case 'binary':
      return printBinary(expression, names);
    case 'construct':
      return printConstruct(expression, names);
    case 'member':
      return `${write(expression.object)}.${names.field('', expression.field)}`;
    case 'swizzle':
      return `${write(expression.object)}.${expression.components.map((component) => 'xyzw'[component]).join('')}`;
    case 'index':
      return `${write(expression.object)}[${bare(expression.index, names)}]`;
    case 'conditional':
      return `select(${listOf([expression.else, expression.then, expression.condition], names)})`;
  }
}

/** The same where nothing stands around it. */
export function bare(expression: Expression, names: WgslNames): string {
  const text = printWgsl(expression, names);
  return isBracketed(text) ? text.slice(1, -1) : text;
}

/** The same among others in brackets: a `<` there would open a template list (section 3.9) where a `>` follows. */
function argument(expression: Expression, names: WgslNames): string {
  const opens = expression.op === 'binary' && (expression.operator === '<' || expression.operator === '<=');
  return opens ? printWgsl(expression, names) : bare(expression, names);
}

function isBracketed(text: string): boolean {
  if (!text.startsWith('(') || !text.endsWith(')') || text.startsWith('(*')) return false;
  let depth = 0;
  for (let at = 0; at < text.length; at++) {
    if (text[at] === '(') depth++;
    if (text[at] === ')' && --depth === 0 && at < text.length - 1) return false;
  }
  return true;
}

export function printWgslConstant(type: Type, value: readonly number[]): string {
  if (type.kind === 'scalar') return printScalar(type.scalar, value[0] ?? 0);
  const scalar = scalarOf(type) ?? 'float';
  const [first = 0] = value;
  const same = type.kind === 'vector' && value.every((each) => Object.is(each, first));
  return `${wgslTypeName(type)}(${(same ? [first] : value).map((each) => printScalar(scalar, each)).join(', ')})`;
}

function printScalar(scalar: ScalarName, value: number): string {
  if (scalar === 'bool') return value ? 'true' : 'false';
  if (scalar === 'uint') return `${value >>> 0}u`;
  if (scalar === 'int') return value === -(2 ** 31) ? '(-2147483647i - 1i)' : value < 0 ? `(${value}i)` : `${value}i`;
  const exact = Math.fround(value);
  let text = String(exact);
  for (let digits = 1; digits <= 9; digits++) {
    const short = String(Number(exact.toPrecision(digits)));
    if (Math.fround(Number(short)) !== exact) continue;
    text = short;
    break;
  }
  if (!/[.e]/.test(text)) text += '.0';
  return value < 0 || Object.is(value, -0) ? `(${text.startsWith('-') ? text : `-${text}`})` : text;
}

export function zero(type: Type): string {
  return printWgslConstant(type, Array<number>(componentCount(type)).fill(0));
}

function printBinary({ operator, left, right, type }: Extract<Expression, { op: 'binary' }>, names: WgslNames): string {
  const [a, b] = [printWgsl(left, names), printWgsl(right, names)];
  if (operator === '==' || operator === '!=') return printEquality(operator, left.type, a, b);
  if (operator === '^^') return `(${a} != ${b})`;
  if (operator === '<<' || operator === '>>') return `(${a} ${operator} ${shift(left.type, right.type, b)})`;
  const [one, other] = [left.type, right.type];
  const matrix = one.kind === 'matrix' ? one : other.kind === 'matrix' ? other : undefined;
  const linear = operator === '*';
  if (matrix && !linear && !(sameType(one, other) && (operator === '+' || operator === '-')) && type.kind === 'matrix') {
    // Column by column: WGSL knows + and − between matrices, and * by a number.
    return columns(
      type,
      (column) => `${one.kind === 'matrix' ? `${a}[${column}]` : a} ${operator} ${other.kind === 'matrix' ? `${b}[${column}]` : b}`,
    );
  }
  return `(${a} ${operator} ${b})`;
}

function columns(type: MatrixType, part: (column: number) => string): string {
  return `${wgslTypeName(type)}(${Array.from({ length: type.columns }, (_, column) => part(column)).join(', ')})`;
}

/** By how far something is shifted is unsigned, with as many components. */
function shift(left: Type, right: Type, text: string): string {
  const wanted = ofSize('uint', componentCount(left));
  if (sameType(right, wanted)) return text;
  if (componentCount(right) === componentCount(left)) return `${wgslTypeName(wanted)}(${text})`;
  return `${wgslTypeName(wanted)}(${scalarOf(right) === 'uint' ? text : `u32(${text})`})`;
}

function printEquality(operator: '==' | '!=', type: Type, a: string, b: string): string {
  const equal = allEqual(type, a, b);
  return operator === '==' ? equal : `(!${equal})`;
}

function allEqual(type: Type, a: string, b: string): string {
  switch (type.kind) {
    case 'scalar':
      return `(${a} == ${b})`;
    case 'vector':
      return `all(${a} == ${b})`;
    case 'matrix':
      return `(${Array.from({ length: type.columns }, (_, column) => `all(${a}[${column}] == ${b}[${column}])`).join(' && ')})`;
    case 'struct':
      return `(${type.fields.map((field) => allEqual(field.type, `${a}.${field.name}`, `${b}.${field.name}`)).join(' && ')})`;
    case 'array':
      return `(${Array.from({ length: type.length }, (_, index) => allEqual(type.element, `${a}[${index}]`, `${b}[${index}]`)).join(' && ')})`;
    default:
      throw new NotInWgsl('comparing images');
  }
}

/** A value with the scalar that a constructor wants. */
export function converted(expression: Expression, scalar: ScalarName, names: WgslNames): string {
  const text = argument(expression, names);
  if (scalarOf(expression.type) === scalar) return text;
  return `${wgslTypeName(ofSize(scalar, componentCount(expression.type)))}(${text})`;
}

function printConstruct({ type, args }: Extract<Expression, { op: 'construct' }>, names: WgslNames): string {
  const head = wgslTypeName(type, ({ name }) => names.struct(name));
  const [first] = args;
  if (type.kind === 'struct' || type.kind === 'array' || !first) return `${head}(${args.map((arg) => argument(arg, names)).join(', ')})`;
  const scalar = scalarOf(type) ?? 'float';
  const given = args.reduce((sum, arg) => sum + componentCount(arg.type), 0);
  const wanted = componentCount(type);
  if (type.kind === 'matrix') return printMatrix(type, args, names);
  if (args.length === 1 && first.type.kind === 'matrix') {
    const parts = flat(first, names);
    return type.kind === 'scalar' ? (parts[0] ?? '0.0') : `${head}(${parts.slice(0, wanted).join(', ')})`;
  }
  if (args.length === 1 && first.type.kind === 'vector' && given > wanted) {
    const cut = `${printWgsl(first, names)}.${'xyzw'.slice(0, wanted)}`;
    return scalarOf(first.type) === scalar ? cut : `${head}(${cut})`;
  }
  if (args.length === 1)
    return `${head}(${scalarOf(first.type) === scalar || componentCount(first.type) === wanted ? argument(first, names) : converted(first, scalar, names)})`;
  const parts = args.map((arg) => (arg.type.kind === 'matrix' ? flat(arg, names).join(', ') : converted(arg, scalar, names)));
  const last = args.at(-1);
  // What is left over of the last one is cut off.
  if (given > wanted && last?.type.kind === 'vector') {
    const rest = componentCount(last.type) - (given - wanted);
    parts[parts.length - 1] = `${converted(last, scalar, names)}.${'xyzw'.slice(0, rest)}`;
  }
  return `${head}(${parts.join(', ')})`;
}

/** The numbers of a matrix or vector, one by one. */
function flat(expression: Expression, names: WgslNames): string[] {
  const text = printWgsl(expression, names);
  const { type } = expression;
  if (type.kind === 'matrix')
    return Array.from(
      { length: type.columns * type.rows },
      (_, index) => `${text}[${Math.floor(index / type.rows)}][${index % type.rows}]`,
    );
  if (type.kind === 'vector') return [...'xyzw'.slice(0, type.size)].map((letter) => `${text}.${letter}`);
  return [argument(expression, names)];
}

/** GLSL makes matrices from a number for the diagonal, from other matrices, and from any numbers in a row. */
function printMatrix(type: MatrixType, args: readonly Expression[], names: WgslNames): string {
  const [first] = args;
  const from = first?.type;
  const whole = args.every((arg) => arg.type.kind === 'vector' && arg.type.size === type.rows) && args.length === type.columns;
  const head = wgslTypeName(type);
  if (whole) return `${head}(${args.map((arg) => converted(arg, 'float', names)).join(', ')})`;
  const cell = (part: (column: number, row: number) => string): string =>
    `${head}(${Array.from({ length: type.columns * type.rows }, (_, index) => part(Math.floor(index / type.rows), index % type.rows)).join(', ')})`;
  if (args.length === 1 && first && from?.kind === 'scalar') {
    const value = converted(first, 'float', names);
    return cell((column, row) => (column === row ? value : '0.0'));
  }
  if (args.length === 1 && first && from?.kind === 'matrix') {
    const text = printWgsl(first, names);
    return cell((column, row) =>
      column < from.columns && row < from.rows ? `${text}[${column}][${row}]` : column === row ? '1.0' : '0.0',
    );
  }
  const numbers = args.flatMap((arg) => (scalarOf(arg.type) === 'float' ? flat(arg, names) : [converted(arg, 'float', names)]));
  return `${head}(${numbers.slice(0, type.columns * type.rows).join(', ')})`;
}

/** A number as a vector of as many components as another type has. */
export function spreadTo(expression: Expression, type: Type, names: WgslNames): string {
  if (type.kind !== 'vector' || expression.type.kind !== 'scalar') return argument(expression, names);
  return `${wgslTypeName(type)}(${argument(expression, names)})`;
}

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

const COMPARED: Readonly<Record<string, string>> = {
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
function printWgslBuiltin(expression: Builtin, names: WgslNames): string {
  const { name, args, type } = expression;
  const write = (each: Expression | undefined): string => (each ? printWgsl(each, names) : '');
  const [a, b, c] = args;
  const relation = Object.hasOwn(COMPARED, name) ? COMPARED[name] : undefined;
  if (relation) return `(${write(a)} ${relation} ${write(b)})`;
  if (a?.type.kind === 'sampler') return printRead(expression, names);
  switch (name) {
    case 'not':
      return `(!${write(a)})`;
    case 'mod':
      return `(${write(a)} - ${write(b)} * floor(${write(a)} / ${write(b)}))`;
    case 'mix':
      return c && scalarOf(c.type) === 'bool' ? `select(${listOf([a, b, c], names)})` : `mix(${listOf(args, names)})`;
    case 'atan':
      return `${args.length === 2 ? 'atan2' : 'atan'}(${listOf(args, names)})`;
    case 'isnan':
      return `(${write(a)} != ${write(a)})`;
    case 'isinf':
      return `(abs(${write(a)}) > ${spreadNumber(a?.type, '3.4028234e38')})`;
    case 'floatBitsToInt':
    case 'floatBitsToUint':
    case 'intBitsToFloat':
    case 'uintBitsToFloat':
      return `bitcast<${wgslTypeName(type)}>(${a ? argument(a, names) : ''})`;
    case 'matrixCompMult':
    case 'outerProduct':
      return matrixByColumns(type, (column) =>
        name === 'outerProduct' ? `${write(a)} * ${write(b)}[${column}]` : `${write(a)}[${column}] * ${write(b)}[${column}]`,
      );
    case 'inverse':
      throw new NotInWgsl('inverse of a matrix');
  }
  const called = Object.hasOwn(RENAMED, name) ? (RENAMED[name] ?? name) : name;
  // A single number stands for all components, but not in WGSL.
  return `${called}(${args.map((arg) => (SPREADS.has(name) ? spreadTo(arg, type, names) : argument(arg, names))).join(', ')})`;
}

function listOf(args: readonly (Expression | undefined)[], names: WgslNames): string {
  return args.map((arg) => (arg ? argument(arg, names) : '')).join(', ');
}

function spreadNumber(type: Type | undefined, number: string): string {
  return type?.kind === 'vector' ? `${wgslTypeName(type)}(${number})` : number;
}

function matrixByColumns(type: Type, part: (column: number) => string): string {
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
  const more = (list: readonly (Expression | undefined)[]): string =>
    list.map((each) => (each ? `, ${argument(each, names)}` : '')).join('');
  if (name === 'textureSize')
    return `vec${componentCount(place.type) === 1 ? 2 : 3}i(textureDimensions(${map}, ${argument(place, names)}))`;
  if (name === 'texelFetch') return `textureLoad(${map}, ${argument(place, names)}${more(rest)})`;
  if (name === 'texelFetchOffset')
    return `textureLoad(${map}, ${printWgsl(place, names)} + ${rest[1] ? printWgsl(rest[1], names) : ''}${more([rest[0]])})`;
  const projected = name.includes('Proj');
  const size = image.type.kind === 'sampler' && image.type.name.includes('2D') ? 2 : 3;
  const at = projected
    ? `${printWgsl(place, names)}.${'xyz'.slice(0, size)} / ${printWgsl(place, names)}.${'xyzw'[componentCount(place.type) - 1] ?? 'z'}`
    : argument(place, names);
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
