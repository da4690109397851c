import { constant, construct, float, swizzle } from './build';
import { isDifference } from './builtins/table';
import { FRONT_FACING, PIXEL_PLACE } from './builtin-variables';
import type { Builtin, Expression, IrFunction, Module } from './ir';
import { mapBody } from './map-body';
import { BOOL, componentCount, FLOAT, INT, NAMED_TYPES, sameType, VEC2, VEC4, type Type } from './types';
import { mapOperands } from './walk';

/**
 * The same functions for a stage that has no pixels: derivatives are 0, every face is seen from its front, and the place
 * of the pixel is the picture's corner.
 *
 * @param gap how far apart vertices lie in UV, where they know; images are read no finer, so that a surface which is moved by one
 * neither misses what lies between its vertices nor takes its slope from a single pixel
 */
export function forVertexStage(module: Module, gap?: Expression): Module {
  return {
    ...module,
    functions: new Map([...module.functions].map(([signature, each]) => [signature, functionForVertexStage(each, gap)])),
  };
}

export function functionForVertexStage(declared: IrFunction, gap?: Expression): IrFunction {
  return { ...declared, body: mapBody(declared.body, (each) => inExpression(each, gap)) };
}

function inExpression(expression: Expression, gap?: Expression): Expression {
  if (expression.op === 'builtin' && isDifference(expression.name))
    return constant(expression.type, Array<number>(componentCount(expression.type)).fill(0));
  if (expression.op === 'reference' && expression.scope === 'global') {
    if (expression.name === FRONT_FACING) return constant(BOOL, [1]);
    if (expression.name === PIXEL_PLACE) return constant(VEC4, [0, 0, 0, 1]);
  }
  const mapped = mapOperands(expression, (each) => inExpression(each, gap));
  return gap && mapped.op === 'builtin' && mapped.name === 'texture' ? atVertexLevel(mapped, gap) : mapped;
}

/** `texture` at the level where a pixel is as large as the gap between vertices. */
function atVertexLevel(read: Builtin, between: Expression): Expression {
  const [image, place] = read.args;
  if (!image || !place || !sameType(place.type, VEC2)) return read;
  const builtin = (name: string, type: Type, ...args: Expression[]): Builtin => ({ op: 'builtin', name, type, args });
  const size = builtin('textureSize', NAMED_TYPES.get('ivec2') ?? INT, image, constant(INT, [0]));
  const largest = construct(FLOAT, [builtin('max', INT, swizzle(size, [0]), swizzle(size, [1]))]);
  const gap: Expression = { op: 'binary', operator: '*', left: between, right: largest, type: FLOAT };
  const level = builtin('log2', FLOAT, builtin('max', FLOAT, gap, float(1)));
  return builtin('textureLod', read.type, image, place, level);
}
