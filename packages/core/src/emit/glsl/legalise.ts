import { global, swizzle } from '../../ir/build';
import type { Expression, IrFunction } from '../../ir/ir';
import { mapBody } from '../../ir/map-body';
import type { Program, StageProgram } from '../../ir/program';
import { FLOAT, VEC4 } from '../../ir/types';
import { mapOperands, walkBody } from '../../ir/walk';

/**
 * How a picture lies on its target: (sign of y: −1 drawing into a texture, +1 into a canvas; height of the target in pixels;
 * 0; 0). Brelvin's picture has row 0 at the top and clip space z 0…1; GL has neither.
 */
export const DEVICE_TARGET = 'deviceTarget';

/** Rows count downwards with us, upwards on a canvas: `dFdy` is turned round where they do. */
export function legalise({ vertex, fragment }: Program): Program {
  return { vertex, fragment: legalStage(fragment) };
}

function legalStage(stage: StageProgram): StageProgram {
  return { ...stage, functions: stage.functions.map(legalFunction) };
}

/** The library's functions are the same objects in every program: each is gone through once. */
const known = new WeakMap<IrFunction, IrFunction>();

function legalFunction(declared: IrFunction): IrFunction {
  const found = known.get(declared);
  if (found) return found;
  let slopes = false;
  walkBody(declared.body, (each) => (slopes ||= isSlope(each)));
  const legal = slopes ? { ...declared, body: mapBody(declared.body, downwards) } : declared;
  known.set(declared, legal);
  return legal;
}

function isSlope(expression: Expression): boolean {
  return expression.op === 'builtin' && expression.name === 'dFdy';
}

function downwards(expression: Expression): Expression {
  const inside = mapOperands(expression, downwards);
  if (!isSlope(inside)) return inside;
  const sign: Expression = { op: 'unary', operator: '-', value: swizzle(global(DEVICE_TARGET, VEC4), [0]), type: FLOAT };
  return { op: 'binary', operator: '*', left: inside, right: sign, type: inside.type };
}
