import { constant, construct, float, global, swizzle } from './build';
import type { Builtin, Expression, IrFunction, Module } from './ir';
import { mapBody } from './map-body';
import { BOOL, componentCount, FLOAT, INT, NAMED_TYPES, sameType, VEC2, VEC4, type Type } from './types';
import { mapOperands } from './walk';

const DERIVATIVES = new Set(['dFdx', 'dFdy', 'fwidth']);

/** How far apart vertices lie in UV, among what vertices of a shape bring along. */
const BEND = global('meshBend', VEC4);

/**
 * The same functions for a stage that has no pixels: derivatives are 0, every face is seen from its front, and the place
 * of the pixel is the picture's corner.
 *
 * @param shaped vertices know how far apart they lie; images are read no finer, so that a surface which is moved by one
 * neither misses what lies between its vertices nor takes its slope from a single pixel
 */
export function withoutPixels(module: Module, shaped: boolean): Module {
  return { ...module, functions: new Map([...module.functions].map(([signature, each]) => [signature, withoutPixelsIn(each, shaped)])) };
}

export function withoutPixelsIn(declared: IrFunction, shaped = false): IrFunction {
  return { ...declared, body: mapBody(declared.body, (each) => inExpression(each, shaped)) };
}

function inExpression(expression: Expression, shaped: boolean): Expression {
  if (expression.op === 'builtin' && DERIVATIVES.has(expression.name))
    return constant(expression.type, Array<number>(componentCount(expression.type)).fill(0));
  if (expression.op === 'reference' && expression.scope === 'global') {
    if (expression.name === 'gl_FrontFacing') return constant(BOOL, [1]);
    if (expression.name === 'gl_FragCoord') return constant(VEC4, [0, 0, 0, 1]);
  }
  const mapped = mapOperands(expression, (each) => inExpression(each, shaped));
  return shaped && mapped.op === 'builtin' && mapped.name === 'texture' ? atVertexLevel(mapped) : mapped;
}

/** `texture` at the level where a pixel is as large as the gap between vertices. */
function atVertexLevel(read: Builtin): Expression {
  const [image, place] = read.args;
  if (!image || !place || !sameType(place.type, VEC2)) return read;
  const builtin = (name: string, type: Type, ...args: Expression[]): Builtin => ({ op: 'builtin', name, type, args });
  const size = builtin('textureSize', NAMED_TYPES.get('ivec2') ?? INT, image, constant(INT, [0]));
  const largest = construct(FLOAT, [builtin('max', INT, swizzle(size, [0]), swizzle(size, [1]))]);
  const gap: Expression = { op: 'binary', operator: '*', left: swizzle(BEND, [3]), right: largest, type: FLOAT };
  const level = builtin('log2', FLOAT, builtin('max', FLOAT, gap, float(1)));
  return builtin('textureLod', read.type, image, place, level);
}
