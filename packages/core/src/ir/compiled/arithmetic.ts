import type { BinaryOperator } from '../ir';
import type { ScalarName } from '../types';
import { CODE, TRUNCATED_TO_I32, TRUNCATED_TO_U32 } from './encoding';
import { known, read, type Operand } from './operand';

type Simple = Exclude<BinaryOperator, '&&' | '||' | '/' | '%'>;

const OF_FLOATS: Partial<Record<Simple, number>> = {
  '+': CODE.f32Add,
  '-': CODE.f32Sub,
  '*': CODE.f32Mul,
  '<': CODE.f32Lt,
  '>': CODE.f32Gt,
  '<=': CODE.f32Le,
  '>=': CODE.f32Ge,
  '==': CODE.f32Eq,
  '!=': CODE.f32Ne,
};
const OF_SIGNED: Record<Simple, number> = {
  '+': CODE.i32Add,
  '-': CODE.i32Sub,
  '*': CODE.i32Mul,
  '<': CODE.i32LtS,
  '>': CODE.i32GtS,
  '<=': CODE.i32LeS,
  '>=': CODE.i32GeS,
  '==': CODE.i32Eq,
  '!=': CODE.i32Ne,
  '^^': CODE.i32Ne,
  '&': CODE.i32And,
  '|': CODE.i32Or,
  '^': CODE.i32Xor,
  '<<': CODE.i32Shl,
  '>>': CODE.i32ShrS,
};
const OF_UNSIGNED: Record<Simple, number> = {
  ...OF_SIGNED,
  '<': CODE.i32LtU,
  '>': CODE.i32GtU,
  '<=': CODE.i32LeU,
  '>=': CODE.i32GeU,
  '>>': CODE.i32ShrU,
};

/** Two numbers of one type, `a operator b`; what `evaluate` gives. */
export function arithmetic(operator: Exclude<BinaryOperator, '&&' | '||'>, scalar: ScalarName, a: Operand, b: Operand): number[] {
  const both = [...read(a), ...read(b)];
  if (operator === '/') return scalar === 'float' ? [...both, CODE.f32Div] : quotient(scalar, a, b);
  if (operator === '%') return rest(scalar, a, b);
  const code = scalar === 'float' ? OF_FLOATS[operator] : (scalar === 'uint' ? OF_UNSIGNED : OF_SIGNED)[operator];
  if (code === undefined) throw new RangeError(`floats have no ${operator}`);
  return [...both, code];
}

/** Dividing by 0 gives 0; the least number by −1, which would not be representable, itself: neither stops the program. */
function quotient(scalar: ScalarName, a: Operand, b: Operand): number[] {
  const zero = [...read(b), CODE.i32Eqz];
  if (scalar === 'uint') {
    const divided = [...read(a), ...orOne(b, zero), CODE.i32DivU];
    return [...read(known('uint', 0)), ...divided, ...zero, CODE.select];
  }
  const minusOne = [...read(b), ...read(known('int', -1)), CODE.i32Eq];
  const divided = [...read(a), ...orOne(b, [...zero, ...minusOne, CODE.i32Or]), CODE.i32DivS];
  const turned = [...read(known('int', 0)), ...read(a), CODE.i32Sub];
  return [...read(known('int', 0)), ...turned, ...divided, ...minusOne, CODE.select, ...zero, CODE.select];
}

function rest(scalar: ScalarName, a: Operand, b: Operand): number[] {
  const zero = [...read(b), CODE.i32Eqz];
  const divided = [...read(a), ...orOne(b, zero), scalar === 'uint' ? CODE.i32RemU : CODE.i32RemS];
  return [...read(known(scalar, 0)), ...divided, ...zero, CODE.select];
}

function orOne(b: Operand, unless: readonly number[]): number[] {
  return [...read(known('int', 1)), ...read(b), ...unless, CODE.select];
}

/** A number in another type; a float that is too large for a whole number becomes the largest. */
export function converted(operand: Operand, to: ScalarName): number[] {
  const { scalar } = operand;
  const here = read(operand);
  if (scalar === to) return here;
  if (to === 'bool')
    return scalar === 'float' ? [...here, ...read(known('float', 0)), CODE.f32Ne] : [...here, ...read(known('int', 0)), CODE.i32Ne];
  if (to === 'float') return [...here, scalar === 'uint' ? CODE.f32FromU32 : CODE.f32FromI32];
  return scalar === 'float' ? [...here, ...(to === 'uint' ? TRUNCATED_TO_U32 : TRUNCATED_TO_I32)] : here;
}
