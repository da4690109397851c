import type { Expression } from '../../ir/ir';
import { typeName, type Type } from '../../ir/types';

/** How names appear in the target. */
export interface ExpressionNames {
  functionOf(signature: string): string;
  global(name: string): string;
  local(name: string): string;
  struct(name: string): string;
  field(struct: string, name: string): string;
  /** `dFdy` of what is written. */
  readonly downwards: (value: string) => string;
}

/** One expression as GLSL. Nested operations are bracketed, so that precedence never has to be looked up. */
export function glslExpression(expression: Expression, names: ExpressionNames): string {
  const write = (each: Expression): string => glslExpression(each, names);
  const list = (args: readonly Expression[]): string => args.map((arg) => glslStatementValue(arg, names)).join(', ');
  switch (expression.op) {
    case 'constant':
      return glslConstant(expression.type, expression.value);
    case 'reference':
      return expression.scope === 'global' ? names.global(expression.name) : names.local(expression.name);
    case 'call':
      return `${names.functionOf(expression.callee)}(${list(expression.args)})`;
    case 'builtin':
      return expression.name === 'dFdy' ? names.downwards(list(expression.args)) : `${expression.name}(${list(expression.args)})`;
    case 'unary':
      return `(${expression.operator}${write(expression.value)})`;
    case 'binary':
      return `(${write(expression.left)} ${expression.operator} ${write(expression.right)})`;
    case 'construct':
      return `${glslType(expression.type, names)}(${list(expression.args)})`;
    case 'member':
      return `${write(expression.object)}.${names.field(typeName(expression.object.type), expression.field)}`;
    case 'swizzle':
      return `${write(expression.object)}.${expression.components.map((component) => 'xyzw'[component]).join('')}`;
    case 'index':
      return `${write(expression.object)}[${glslStatementValue(expression.index, names)}]`;
    case 'choose':
      return `(${write(expression.condition)} ? ${write(expression.yes)} : ${write(expression.no)})`;
  }
}

/** The same where nothing stands around it, so that the outermost brackets can go. */
export function glslStatementValue(expression: Expression, names: ExpressionNames): string {
  const text = glslExpression(expression, names);
  const bracketed = expression.op === 'binary' || expression.op === 'choose' || expression.op === 'unary';
  return bracketed ? text.slice(1, -1) : text;
}

export function glslType(type: Type, names: ExpressionNames): string {
  if (type.kind === 'array') return `${glslType(type.element, names)}[${type.length}]`;
  return type.kind === 'struct' ? names.struct(type.name) : typeName(type);
}

/** `vec4 name` or, for arrays, `vec4 name[8]`; `name` as it is written. */
export function glslDeclarator(type: Type, name: string, names: ExpressionNames): string {
  return type.kind === 'array' ? `${glslType(type.element, names)} ${name}[${type.length}]` : `${glslType(type, names)} ${name}`;
}

function glslConstant(type: Type, value: readonly number[]): string {
  if (type.kind === 'scalar') return glslScalar(type.scalar, value[0] ?? 0);
  const scalar = type.kind === 'vector' ? type.scalar : 'float';
  const [first = 0] = value;
  const same = type.kind === 'vector' && value.every((each) => Object.is(each, first));
  const parts = (same ? [first] : value).map((each) => glslScalar(scalar, each));
  return `${typeName(type)}(${parts.join(', ')})`;
}

function glslScalar(scalar: string, value: number): string {
  if (scalar === 'bool') return value ? 'true' : 'false';
  if (scalar === 'uint') return `${value >>> 0}u`;
  const digits = scalar === 'int' ? String(Math.trunc(value)) : glslFloat(value);
  return value < 0 || Object.is(value, -0) ? `(${digits})` : digits;
}

/** Shortest decimal that reads back as the same 32-bit float. */
function glslFloat(value: number): string {
  if (!Number.isFinite(value)) throw new RangeError('only finite numbers can be written as GLSL');
  const exact = Math.fround(value);
  for (let digits = 1; digits <= 9; digits++) {
    const text = exact.toPrecision(digits);
    if (Math.fround(Number(text)) !== exact) continue;
    const short = String(Number(text));
    return /[.e]/.test(short) ? short : `${short}.0`;
  }
  return String(exact);
}
