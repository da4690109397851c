import { constant, local } from '../../ir/build';
import type { Binary, Builtin, Constant, Expression, IrFunction } from '../../ir/ir';
import { fold } from '../../ir/passes';
import { componentCount, scalarOf, type Type } from '../../ir/types';
import { operands } from '../../ir/walk';
import { ownFunction } from './own-function';

/** Calls a function that the target adds to the program. */
export type Use = (helper: IrFunction, args: readonly Expression[]) => Expression;

const NO_FUNCTIONS = { functions: new Map<string, IrFunction>() };

/**
 * What WGSL works out itself when it reads a program, it refuses where the result is not finite, or where the standard says that the
 * arguments are wrong (sections 8 and 17). Such a value is handed through a function: the device computes it, as it does in GLSL.
 *
 * @param expression whose operands are so already
 */
export function atRuntime(expression: Expression, use: Use): Expression {
  const given = (each: Expression): Expression => use(identity(each.type), [each]);
  const known = operands(expression);
  if (known.length > 0 && known.every(isConstant) && componentCount(expression.type) > 0) {
    const folded = fold(expression, NO_FUNCTIONS);
    if (folded.op === 'constant' || folded.op === 'construct') return folded;
    return firstGiven(folded, given);
  }
  if (expression.op === 'binary') return safeBinary(expression, given);
  return expression.op === 'builtin' ? inOrder(expression, given) : expression;
}

function isConstant(expression: Expression): expression is Constant {
  return expression.op === 'constant';
}

function identity(type: Type): IrFunction {
  return ownFunction('given', [['value', type]], type, [{ op: 'return', value: local('value', type) }]);
}

function firstGiven(expression: Expression, given: (each: Expression) => Expression): Expression {
  if (expression.op === 'binary') return { ...safeBinary(expression, given), left: given(expression.left) };
  if (expression.op === 'unary') return { ...expression, value: given(expression.value) };
  if (expression.op !== 'builtin') return expression;
  const [first, ...others] = expression.args;
  return first ? { ...expression, args: [given(first), ...others] } : expression;
}

/** Functions whose bounds must stand in their order where both are known. */
const BOUNDS: Readonly<Record<string, (args: readonly Expression[]) => readonly (Expression | undefined)[]>> = {
  clamp: ([, low, high]) => [low, high],
  smoothstep: ([low, high]) => [low, high],
};

function inOrder(expression: Builtin, given: (each: Expression) => Expression): Expression {
  const [low, high] = (Object.hasOwn(BOUNDS, expression.name) ? BOUNDS[expression.name]?.(expression.args) : undefined) ?? [];
  if (!low || !high || !isConstant(low) || !isConstant(high)) return expression;
  const ordered = low.value.every((each, index) => each < (high.value[index] ?? high.value[0] ?? each));
  return ordered ? expression : { ...expression, args: expression.args.map((arg) => (arg === low ? given(arg) : arg)) };
}

const WORD_BITS = 32;

function safeBinary(expression: Binary, given: (each: Expression) => Expression): Binary {
  const { operator, right } = expression;
  if (!isConstant(right)) return expression;
  if (operator === '<<' || operator === '>>') {
    // By more bits than there are, GLSL leaves open what comes out; what is counted is the remainder.
    const bits = right.value.map((each) => each & (WORD_BITS - 1));
    return { ...expression, right: constant(right.type, bits) };
  }
  const byZero = (operator === '/' || operator === '%') && scalarOf(right.type) !== 'float' && right.value.includes(0);
  return byZero ? { ...expression, right: given(right) } : expression;
}
