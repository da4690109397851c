import { componentCount, ofSize, sameType, scalarOf, type MatrixType, type ScalarName, type Type } from '../../../ir/types';
import type { Expression } from '../../../ir/ir';
import { wgslTypeName } from '../../wgsl/wgsl-types';
import type { PrintedNames } from '../print-expression';
import { NotInWgsl } from './not-in-wgsl';
import { printWgslBuiltin } from './print-wgsl-builtin';

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
        expression.args.map((arg) => bare(arg, names)),
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
      return `select(${bare(expression.else, names)}, ${bare(expression.then, names)}, ${bare(expression.condition, names)})`;
  }
}

/** The same where nothing stands around it. */
export function bare(expression: Expression, names: WgslNames): string {
  const text = printWgsl(expression, names);
  return isBracketed(text) ? text.slice(1, -1) : text;
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
  const text = bare(expression, names);
  if (scalarOf(expression.type) === scalar) return text;
  return `${wgslTypeName(ofSize(scalar, componentCount(expression.type)))}(${text})`;
}

function printConstruct({ type, args }: Extract<Expression, { op: 'construct' }>, names: WgslNames): string {
  const head = wgslTypeName(type, ({ name }) => names.struct(name));
  const [first] = args;
  if (type.kind === 'struct' || type.kind === 'array' || !first) return `${head}(${args.map((arg) => bare(arg, names)).join(', ')})`;
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
    return `${head}(${scalarOf(first.type) === scalar || componentCount(first.type) === wanted ? bare(first, names) : converted(first, scalar, names)})`;
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
  return [bare(expression, names)];
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
  if (type.kind !== 'vector' || expression.type.kind !== 'scalar') return bare(expression, names);
  return `${wgslTypeName(type)}(${bare(expression, names)})`;
}
