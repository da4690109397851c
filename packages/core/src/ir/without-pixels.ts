import { constant } from './build';
import type { Expression, IrFunction, Module } from './ir';
import { mapBody } from './map-body';
import { BOOL, componentCount, VEC4 } from './types';
import { mapOperands } from './walk';

const DERIVATIVES = new Set(['dFdx', 'dFdy', 'fwidth']);

/**
 * The same functions for a stage that has no pixels: derivatives are 0, every face is seen from its front, and the place
 * of the pixel is the picture's corner.
 */
export function withoutPixels(module: Module): Module {
  return { ...module, functions: new Map([...module.functions].map(([signature, each]) => [signature, withoutPixelsIn(each)])) };
}

export function withoutPixelsIn(declared: IrFunction): IrFunction {
  return { ...declared, body: mapBody(declared.body, inExpression) };
}

function inExpression(expression: Expression): Expression {
  if (expression.op === 'builtin' && DERIVATIVES.has(expression.name))
    return constant(expression.type, Array<number>(componentCount(expression.type)).fill(0));
  if (expression.op === 'reference' && expression.scope === 'global') {
    if (expression.name === 'gl_FrontFacing') return constant(BOOL, [1]);
    if (expression.name === 'gl_FragCoord') return constant(VEC4, [0, 0, 0, 1]);
  }
  return mapOperands(expression, inExpression);
}
