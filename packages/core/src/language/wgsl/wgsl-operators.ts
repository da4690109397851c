import { construct, swizzle } from '../../ir/build';
import type { BinaryOperator, Expression } from '../../ir/ir';
import { BOOL, componentCount, FLOAT, matrix, sameType, scalarOf, vector, type Type } from '../../ir/types';
import { abstractNumber, numbersOf, withScalar, type WgslValue } from './wgsl-value';

const COMPARISONS = new Set(['==', '!=', '<', '>', '<=', '>=']);

export function shiftBy(right: WgslValue): Expression | undefined {
  return right.abstract ? withScalar(right, 'uint') : scalarOf(right.value.type) === 'uint' ? right.value : undefined;
}

/** The type of `left operator right`; undefined where there is none. */
export function wgslBinaryType(operator: BinaryOperator, left: Type, right: Type): Type | undefined {
  const [a, b] = [scalarOf(left), scalarOf(right)];
  if (!a || !b) return undefined;
  const equal = sameType(left, right);
  const asBools = left.kind === 'vector' ? vector(left.size, 'bool') : BOOL;
  if (left.kind === 'matrix' || right.kind === 'matrix') return matrixType(operator, left, right);
  if (operator === '&&' || operator === '||') return equal && sameType(left, BOOL) ? BOOL : undefined;
  if (operator === '==' || operator === '!=') return equal ? asBools : undefined;
  if (COMPARISONS.has(operator)) return equal && a !== 'bool' ? asBools : undefined;
  if (operator === '<<' || operator === '>>')
    return a !== 'float' && a !== 'bool' && componentCount(left) === componentCount(right) ? left : undefined;
  if (operator === '&' || operator === '|') return equal && a !== 'float' ? left : undefined;
  if (operator === '^') return equal && a !== 'float' && a !== 'bool' ? left : undefined;
  if (a === 'bool' || a !== b) return undefined;
  if (equal) return left;
  if (left.kind === 'scalar') return right;
  return right.kind === 'scalar' ? left : undefined;
}

function matrixType(operator: BinaryOperator, left: Type, right: Type): Type | undefined {
  const float = (type: Type): boolean => sameType(type, FLOAT);
  if (operator === '+' || operator === '-') return sameType(left, right) ? left : undefined;
  if (operator !== '*') return undefined;
  if (left.kind === 'matrix' && right.kind === 'matrix') return left.columns === right.rows ? matrix(right.columns, left.rows) : undefined;
  if (left.kind === 'matrix' && right.kind === 'vector')
    return right.scalar === 'float' && left.columns === right.size ? vector(left.rows) : undefined;
  if (left.kind === 'vector' && right.kind === 'matrix')
    return left.scalar === 'float' && left.size === right.rows ? vector(right.columns) : undefined;
  return left.kind === 'matrix' ? (float(right) ? left : undefined) : float(left) ? right : undefined;
}

const RELATIONS: Readonly<Record<string, string>> = {
  '==': 'equal',
  '!=': 'notEqual',
  '<': 'lessThan',
  '>': 'greaterThan',
  '<=': 'lessThanEqual',
  '>=': 'greaterThanEqual',
};

/** An operation of WGSL in the IR, whose operators are those of GLSL ES 3.00. */
export function lowered(operator: BinaryOperator, left: Expression, right: Expression, type: Type): Expression {
  const scalar = scalarOf(left.type);
  if (left.type.kind === 'vector' && Object.hasOwn(RELATIONS, operator))
    return { op: 'builtin', name: RELATIONS[operator] ?? operator, args: [left, right], type };
  // The rest of a division with the sign of the first (section 8.7): x − y · trunc(x / y).
  if (operator === '%' && scalar === 'float') {
    const quotient: Expression = { op: 'builtin', name: 'trunc', args: [{ op: 'binary', operator: '/', left, right, type }], type };
    return { op: 'binary', operator: '-', left, right: { op: 'binary', operator: '*', left: right, right: quotient, type }, type };
  }
  if (scalar === 'bool' && (operator === '&' || operator === '|')) {
    if (type.kind === 'scalar') {
      // Both sides are computed, whichever decides; as neither changes anything, that is not seen.
      return { op: 'binary', operator: operator === '&' ? '&&' : '||', left, right, type };
    }
    return componentwise(type, (index) => ({
      op: 'binary',
      operator: operator === '&' ? '&&' : '||',
      left: swizzle(left, [index]),
      right: swizzle(right, [index]),
      type: BOOL,
    }));
  }
  return { op: 'binary', operator, left, right, type };
}

function componentwise(type: Type, part: (index: number) => Expression): Expression {
  return construct(
    type,
    Array.from({ length: componentCount(type) }, (_, index) => part(index)),
  );
}

const ABSTRACT: Readonly<Record<string, (a: number, b: number, whole: boolean) => number>> = {
  '+': (a, b) => a + b,
  '-': (a, b) => a - b,
  '*': (a, b) => a * b,
  '/': (a, b, whole) => (whole ? Math.trunc(a / b) : a / b),
  '%': (a, b) => a % b,
};

/** Numbers without a type, computed as such; nothing for what gives none. */
export function abstractResult(operator: BinaryOperator, left: WgslValue, right: WgslValue): WgslValue | undefined {
  const work = Object.hasOwn(ABSTRACT, operator) ? ABSTRACT[operator] : undefined;
  const [a, b] = [numbersOf(left), numbersOf(right)];
  if (!work || left.value.type.kind === 'matrix' || right.value.type.kind === 'matrix') return undefined;
  if (a.length !== b.length && a.length > 1 && b.length > 1) return undefined;
  const whole = left.abstract === 'int' && right.abstract === 'int';
  const size = Math.max(a.length, b.length);
  const numbers = Array.from({ length: size }, (_, index) =>
    work(a[a.length === 1 ? 0 : index] ?? 0, b[b.length === 1 ? 0 : index] ?? 0, whole),
  );
  return numbers.every(Number.isFinite) ? abstractNumber(whole ? 'int' : 'float', numbers) : undefined;
}
