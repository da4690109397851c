import type { Expression } from '../../ir/ir';
import { typeName, type Type } from '../../ir/types';

/** How names appear in the text. */
export interface PrintedNames {
  functionOf(signature: string): string;
  global(name: string): string;
  local(name: string): string;
  struct(name: string): string;
  field(struct: string, name: string): string;
}

/** One expression in the shading language. Nested operations are bracketed, so that precedence never has to be looked up. */
export function printExpression(expression: Expression, names: PrintedNames): string {
  const write = (each: Expression): string => printExpression(each, names);
  const list = (args: readonly Expression[]): string => args.map((arg) => printValue(arg, names)).join(', ');
  switch (expression.op) {
    case 'constant':
      return printConstant(expression.type, expression.value);
    case 'reference':
      return expression.scope === 'global' ? names.global(expression.name) : names.local(expression.name);
    case 'call':
      return `${names.functionOf(expression.callee)}(${list(expression.args)})`;
    case 'builtin':
      return `${expression.name}(${list(expression.args)})`;
    case 'unary':
      return `(${expression.operator}${write(expression.value)})`;
    case 'binary':
      return `(${write(expression.left)} ${expression.operator} ${write(expression.right)})`;
    case 'construct':
      return `${printType(expression.type, names)}(${list(expression.args)})`;
    case 'member':
      return `${write(expression.object)}.${names.field(typeName(expression.object.type), expression.field)}`;
    case 'swizzle':
      return `${write(expression.object)}.${expression.components.map((component) => 'xyzw'[component]).join('')}`;
    case 'index':
      return `${write(expression.object)}[${printValue(expression.index, names)}]`;
    case 'conditional':
      return `(${write(expression.condition)} ? ${write(expression.then)} : ${write(expression.else)})`;
  }
}

/** The same where nothing stands around it, so that the outermost brackets can go. */
export function printValue(expression: Expression, names: PrintedNames): string {
  const text = printExpression(expression, names);
  const bracketed = expression.op === 'binary' || expression.op === 'conditional' || expression.op === 'unary';
  return bracketed ? text.slice(1, -1) : text;
}

export function printType(type: Type, names: PrintedNames): string {
  if (type.kind === 'array') return `${printType(type.element, names)}[${type.length}]`;
  return type.kind === 'struct' ? names.struct(type.name) : typeName(type);
}

/** `vec4 name` or, for arrays, `vec4 name[8]`; `name` as it is written. */
export function printDeclarator(type: Type, name: string, names: PrintedNames): string {
  return type.kind === 'array' ? `${printType(type.element, names)} ${name}[${type.length}]` : `${printType(type, names)} ${name}`;
}

function printConstant(type: Type, value: readonly number[]): string {
  if (type.kind === 'scalar') return printScalar(type.scalar, value[0] ?? 0);
  const scalar = type.kind === 'vector' ? type.scalar : 'float';
  const [first = 0] = value;
  const same = type.kind === 'vector' && value.every((each) => Object.is(each, first));
  const parts = (same ? [first] : value).map((each) => printScalar(scalar, each));
  return `${typeName(type)}(${parts.join(', ')})`;
}

function printScalar(scalar: string, value: number): string {
  if (scalar === 'bool') return value ? 'true' : 'false';
  if (scalar === 'uint') return `${value >>> 0}u`;
  const digits = scalar === 'int' ? String(Math.trunc(value)) : printFloat(value);
  return value < 0 || Object.is(value, -0) ? `(${digits})` : digits;
}

/** Shortest decimal that reads back as the same 32-bit float. */
function printFloat(value: number): string {
  if (!Number.isFinite(value)) throw new RangeError('only finite numbers can be written');
  const exact = Math.fround(value);
  for (let digits = 1; digits <= 9; digits++) {
    const text = exact.toPrecision(digits);
    if (Math.fround(Number(text)) !== exact) continue;
    const short = String(Number(text));
    return /[.e]/.test(short) ? short : `${short}.0`;
  }
  return String(exact);
}
