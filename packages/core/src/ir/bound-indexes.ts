import { constant } from './build';
import type { Expression, IrFunction } from './ir';
import { mapBody } from './map-body';
import { INT, sameType, UINT } from './types';
import { mapOperands } from './walk';

/**
 * Keeps indexes that are computed inside of what they look into: outside of it devices do as they like, and drivers refuse
 * what they can compute to lie there.
 */
export function boundIndexes(declared: IrFunction): IrFunction {
  return { ...declared, body: mapBody(declared.body, bound) };
}

function bound(expression: Expression): Expression {
  const inside = mapOperands(expression, bound);
  if (inside.op !== 'index' || inside.index.op === 'constant') return inside;
  const { type } = inside.object;
  const length = type.kind === 'array' ? type.length : type.kind === 'vector' ? type.size : type.kind === 'matrix' ? type.columns : 0;
  const last = length - 1;
  const index: Expression = sameType(inside.index.type, UINT)
    ? { op: 'builtin', name: 'min', args: [inside.index, constant(UINT, [last])], type: UINT }
    : { op: 'builtin', name: 'clamp', args: [inside.index, constant(INT, [0]), constant(INT, [last])], type: INT };
  return { ...inside, index };
}
