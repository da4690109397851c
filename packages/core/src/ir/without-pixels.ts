import { constant } from './build';
import type { Expression, IrFunction, Module, Statement } from './ir';
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

function withoutPixelsIn(declared: IrFunction): IrFunction {
  return { ...declared, body: declared.body.map(inStatement) };
}

function inStatement(statement: Statement): Statement {
  switch (statement.op) {
    case 'declare':
    case 'return':
      return statement.value ? { ...statement, value: inExpression(statement.value) } : statement;
    case 'assign':
      return { ...statement, target: inExpression(statement.target), value: inExpression(statement.value) };
    case 'evaluate':
      return { ...statement, value: inExpression(statement.value) };
    case 'if':
      return {
        ...statement,
        condition: inExpression(statement.condition),
        yes: statement.yes.map(inStatement),
        no: statement.no.map(inStatement),
      };
    case 'loop':
      return {
        ...statement,
        condition: inExpression(statement.condition),
        body: statement.body.map(inStatement),
        step: statement.step.map(inStatement),
      };
    case 'block':
      return { ...statement, body: statement.body.map(inStatement) };
    default:
      return statement;
  }
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
