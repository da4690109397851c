import { CODE } from './encoding';
import { known, read, type Operand } from './operand';

/** Code for one component of the result, from that component of each argument. */
type Component = (...args: Operand[]) => number[];

const one =
  (code: number): Component =>
  (x = ZERO) => [...read(x), code];
const two =
  (code: number): Component =>
  (x = ZERO, y = ZERO) => [...read(x), ...read(y), code];

const ZERO = known('float', 0);
const ONE = read(known('float', 1));

/**
 * Built-in functions of floats, component by component, as instructions; formulas of GLSL ES 3.00 section 8.3. All others are
 * called in the table of built-ins.
 */
export const NATIVE: Readonly<Record<string, Component>> = {
  abs: one(CODE.f32Abs),
  floor: one(CODE.f32Floor),
  ceil: one(CODE.f32Ceil),
  trunc: one(CODE.f32Trunc),
  round: one(CODE.f32Nearest),
  roundEven: one(CODE.f32Nearest),
  sqrt: one(CODE.f32Sqrt),
  inversesqrt: (x = ZERO) => [...ONE, ...read(x), CODE.f32Sqrt, CODE.f32Div],
  min: two(CODE.f32Min),
  max: two(CODE.f32Max),
  fract: (x = ZERO) => [...read(x), ...read(x), CODE.f32Floor, CODE.f32Sub],
  mod: (x = ZERO, y = ZERO) => [...read(x), ...read(y), ...read(x), ...read(y), CODE.f32Div, CODE.f32Floor, CODE.f32Mul, CODE.f32Sub],
  clamp: (x = ZERO, low = ZERO, high = ZERO) => [...read(x), ...read(low), CODE.f32Max, ...read(high), CODE.f32Min],
  mix: (x = ZERO, y = ZERO, a = ZERO) =>
    a.scalar === 'bool'
      ? [...read(y), ...read(x), ...read(a), CODE.select]
      : [...read(x), ...ONE, ...read(a), CODE.f32Sub, CODE.f32Mul, ...read(y), ...read(a), CODE.f32Mul, CODE.f32Add],
  step: (edge = ZERO, x = ZERO) => [...read(ZERO), ...ONE, ...read(x), ...read(edge), CODE.f32Lt, CODE.select],
};

/** The sum of products, from the first component on. */
export function dotProduct(a: readonly Operand[], b: readonly Operand[]): number[] {
  return a.flatMap((each, index) => {
    const product = [...read(each), ...read(b[index] ?? ZERO), CODE.f32Mul];
    return index === 0 ? product : [...product, CODE.f32Add];
  });
}
