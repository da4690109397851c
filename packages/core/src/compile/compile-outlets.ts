import { library as loadLibrary, type Library } from '../catalogue/library';
import type { OutletAddress } from '../document/graph';
import type { MaterialSource } from '../document/material';
import { constant, local } from '../ir/build';
import type { Expression, IrFunction, Statement } from '../ir/ir';
import type { Line } from '../ir/passes';
import type { Program } from '../ir/program';
import { BOOL, INT, VEC4 } from '../ir/types';
import { walkExpression } from '../ir/walk';
import { assembleMaterial } from './assemble-material';
import type { CompiledMaterial } from './compiled-material';
import { MOST_OUTLETS } from './limits';
import { SurfaceLinker } from './link-surface';
import { resolveGraph, type GraphProblem } from './resolve';
import { graphProblems, lowerStages } from './stages';

/** A program that gives the values of outlets, one at a time, in place of a picture. */
export interface CompiledOutlets<Code = Program> {
  /** Feeds a surface like every other compiled material. */
  readonly compiled: CompiledMaterial<Code>;
  /** Which outlet each index of the program stands for, under its node's path in the unfolded graph. */
  readonly outlets: readonly OutletAddress[];
}

/**
 * Compiles a program for looking at outlets: whether or not they reach the dock. Those without a value at a point (images,
 * gradient stops, what is computed for each light) are left out.
 *
 * @param wanted at most 64, by path
 */
export function compileOutlets(
  material: MaterialSource,
  wanted: readonly OutletAddress[],
  library: Library = loadLibrary(),
): CompiledOutlets | { readonly problems: readonly GraphProblem[] } {
  const resolved = resolveGraph(material, library);
  if (resolved.problems.length > 0) return { problems: resolved.problems };
  const stages = lowerStages(resolved, material, library, [], wanted.slice(0, MOST_OUTLETS));
  const problems = graphProblems(resolved, stages.shared);
  if (problems.length > 0) return { problems };
  const linker = new SurfaceLinker(stages.shared, stages.pixel, stages.vertex, stages.shaped);
  const painters = [outletPainter(linker.pixel.line, linker.pixel.results)];
  const link = (): Program => linker.link('outlets', painters);
  const { slots, frame, baked, images } = linker;
  const { outlets, shaped } = stages;
  return { outlets, compiled: assembleMaterial('outlets', [], { link, slots, frame, shaped, opacity: undefined, baked, images }) };
}

/**
 * `vec4 paintOutlet(int outlet)`: computes along the line and comes back as soon as the wanted value is known, so that the
 * program is no longer than the graph, however many outlets it can show.
 */
function outletPainter(line: Line, results: readonly Expression[]): IrFunction {
  const index = local('outlet', INT);
  const place = new Map(line.map((declared, at) => [declared.name, at]));
  const ready = results.map((result) => lastNeeded(result, place));
  const body: Statement[] = [];
  const answer = (at: number): void =>
    results.forEach((result, outlet) => {
      if (ready[outlet] !== at) return;
      const condition: Expression = { op: 'binary', operator: '==', left: index, right: constant(INT, [outlet]), type: BOOL };
      body.push({ op: 'if', condition, then: [{ op: 'return', value: result }], else: [] });
    });
  answer(-1);
  line.forEach((declared, at) => {
    body.push(declared);
    answer(at);
  });
  body.push({ op: 'return', value: constant(VEC4, [0, 0, 0, 0]) });
  return {
    signature: 'paintOutlet(int)',
    name: 'paintOutlet',
    parameters: [{ name: index.name, type: INT, direction: 'in' }],
    result: VEC4,
    body,
    origin: { path: 'graph' },
  };
}

/** The place in the line behind which an expression can be computed; −1 where it needs nothing of it. */
function lastNeeded(expression: Expression, place: ReadonlyMap<string, number>): number {
  let last = -1;
  walkExpression(expression, (each) => {
    if (each.op === 'reference' && each.scope === 'local') last = Math.max(last, place.get(each.name) ?? -1);
  });
  return last;
}
