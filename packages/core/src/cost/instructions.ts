import { BUILTIN_FUNCTIONS } from '../ir/builtins/table';
import type { Binary, Builtin, Construct, Expression } from '../ir/ir';
import { componentCount, scalarOf, type Type } from '../ir/types';

/**
 * Instructions of an expression itself, without its operands and without what it calls.
 *
 * Counted as devices work today: component by component, a multiplication with an addition behind it as one, signs and choices
 * of components for nothing. What the special unit does (powers of two, logarithms, roots, reciprocals, sines) comes at a
 * quarter of that rate and counts 4; the rest is put together from these, after the formulas of the GLSL ES 3.00 specification, chapter 8.
 */
export function instructionsOf(expression: Expression): number {
  switch (expression.op) {
    case 'constant':
    case 'reference':
    case 'member':
    case 'swizzle':
    case 'call':
      return 0;
    case 'index':
      return expression.index.op === 'constant' ? 0 : 1;
    case 'unary':
      return expression.operator === '-' ? 0 : size(expression.type);
    case 'conditional':
      return size(expression.type);
    case 'construct':
      return ofConstruct(expression);
    case 'binary':
      return ofBinary(expression);
    case 'builtin':
      return ofBuiltin(expression);
  }
}

const SPECIAL = 4;
const DIVISION = SPECIAL + 1;
/** Devices divide whole numbers by way of a reciprocal and put it right. */
const WHOLE_DIVISION = 20;

function size(type: Type): number {
  return Math.max(1, componentCount(type));
}

/** Putting numbers beside each other costs nothing; another kind of number costs. */
function ofConstruct({ type, args }: Construct): number {
  const wanted = scalarOf(type);
  return args.reduce((sum, { type: given }) => sum + (wanted && scalarOf(given) !== wanted ? componentCount(given) : 0), 0);
}

function ofBinary({ operator, left, right, type }: Binary): number {
  const [a, b] = [left.type, right.type];
  if (operator === '*' && (a.kind === 'matrix' || b.kind === 'matrix') && a.kind !== 'scalar' && b.kind !== 'scalar') {
    const shared = a.kind === 'matrix' ? a.columns : componentCount(a);
    return componentCount(type) * shared;
  }
  const count = Math.max(size(a), size(b));
  if (operator === '/') return count * (scalarOf(a) === 'float' ? DIVISION : WHOLE_DIVISION);
  return operator === '%' ? count * WHOLE_DIVISION : count;
}

type Count = (components: number) => number;
const each =
  (instructions: number): Count =>
  (components) =>
    instructions * components;
const dot: Count = (n) => n;

/** By the number of components of the first argument. */
const BUILTIN_COUNTS: Readonly<Record<string, Count>> = {
  abs: each(0),
  sign: each(2),
  mod: each(DIVISION + 2),
  modf: each(2),
  clamp: each(2),
  mix: each(2),
  step: each(2),
  smoothstep: each(DIVISION + 6),
  floatBitsToInt: each(0),
  floatBitsToUint: each(0),
  intBitsToFloat: each(0),
  uintBitsToFloat: each(0),
  sin: each(SPECIAL + 1),
  cos: each(SPECIAL + 1),
  tan: each(2 * (SPECIAL + 1) + DIVISION),
  asin: each(12),
  acos: each(12),
  atan: each(16),
  sinh: each(2 * (SPECIAL + 1) + 2),
  cosh: each(2 * (SPECIAL + 1) + 2),
  tanh: each(2 * (SPECIAL + 1) + DIVISION + 2),
  asinh: each(2 * SPECIAL + 4),
  acosh: each(2 * SPECIAL + 4),
  atanh: each(SPECIAL + DIVISION + 3),
  pow: each(2 * SPECIAL + 1),
  exp: each(SPECIAL + 1),
  log: each(SPECIAL + 1),
  exp2: each(SPECIAL),
  log2: each(SPECIAL),
  sqrt: each(SPECIAL),
  inversesqrt: each(SPECIAL),
  length: (n) => dot(n) + SPECIAL,
  distance: (n) => n + dot(n) + SPECIAL,
  dot,
  cross: each(2),
  normalize: (n) => dot(n) + SPECIAL + n,
  faceforward: (n) => dot(n) + 1 + n,
  reflect: (n) => dot(n) + 1 + n,
  refract: (n) => dot(n) + 6 + SPECIAL + 2 * n,
  transpose: each(0),
  // By minors: n! products.
  determinant: (n) => ({ 4: 3, 9: 14 })[n] ?? 40,
  inverse: (n) => DIVISION + ({ 4: 7, 9: 36 }[n] ?? 140),
  any: (n) => n - 1,
  all: (n) => n - 1,
  dFdx: each(2),
  dFdy: each(2),
  fwidth: each(5),
  packHalf2x16: each(2),
  unpackHalf2x16: each(2),
};

function ofBuiltin({ name, args, type }: Builtin): number {
  if (BUILTIN_FUNCTIONS.get(name)?.readsImage) return 1;
  const components = args[0] ? size(args[0].type) : 1;
  return BUILTIN_COUNTS[name]?.(components) ?? Math.max(components, size(type));
}

/** Reads of images by an expression itself. */
export function readsOf(expression: Expression): number {
  return expression.op === 'builtin' && expression.name !== 'textureSize' && BUILTIN_FUNCTIONS.get(expression.name)?.readsImage ? 1 : 0;
}
