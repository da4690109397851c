import { library as loadLibrary, type Library } from '../catalogue/library';
import type { OutletAddress } from '../document/graph';
import type { MaterialSource } from '../document/material';
import { constant, local } from '../ir/build';
import type { Expression, IrFunction, Statement } from '../ir/ir';
import { dropDead, type Line } from '../ir/passes';
import type { Program } from '../ir/program';
import { BOOL, INT, VEC4 } from '../ir/types';
import { walkExpression } from '../ir/walk';
import { assembleMaterial, type SurfaceParts } from './assemble-material';
import type { CompiledMaterial } from './compiled-material';
import { MOST_OUTLETS, OUTLETS_TOGETHER } from './limits';
import { SurfaceLinker } from './link-surface';
import type { OutletVariant } from './surface-programs';
import { resolveGraph, type GraphProblem } from './resolve';
import { graphProblems, lowerStages } from './stages';

/** Programs that give the values of outlets, one at a time, in place of a picture. */
export interface CompiledOutlets<Code = Program> {
  /** Feeds a surface like every other compiled material; `outletVariant` says which of its programs gives an outlet. */
  readonly compiled: CompiledMaterial<Code>;
  /** Which outlet each index of the program stands for, under its node's path in the unfolded graph. */
  readonly outlets: readonly OutletAddress[];
}

/**
 * Compiles programs for looking at outlets: whether or not they reach the dock. Those without a value at a point (images,
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
  const { line, results } = linker.pixel;
  const programs = Array.from({ length: Math.max(1, Math.ceil(results.length / OUTLETS_TOGETHER)) }, (_, index): Program => {
    const first = index * OUTLETS_TOGETHER;
    return linker.link('outlets', [outletPainter(line, results.slice(first, first + OUTLETS_TOGETHER), first)]);
  });
  const { slots, frame, baked, images } = linker;
  const { outlets, shaped } = stages;
  return { outlets, compiled: assembleOutlets(programs, { slots, frame, shaped, opacity: undefined, baked, images }) };
}

/** Which program gives an outlet, by its index; nothing for the first one, which also gives the place. */
export function outletVariant(outlet: number): OutletVariant | undefined {
  const index = Math.floor(outlet / OUTLETS_TOGETHER);
  return index > 0 ? variantOf(index) : undefined;
}

function variantOf(index: number): OutletVariant {
  return `outlets${index}`;
}

/** All programs as one material: what any of them reads is fed. */
function assembleOutlets(programs: readonly Program[], fed: Omit<SurfaceParts, 'link'>): CompiledMaterial {
  const [first, ...others] = programs.map((program) => assembleMaterial('outlets', [], { ...fed, link: () => program }));
  if (!first) throw new RangeError('there is at least one program of outlets');
  const all = [first, ...others];
  return {
    ...first,
    key: all.map(({ key }) => key).join(' '),
    variants: Object.fromEntries<Program>(others.map(({ program }, index) => [variantOf(index + 1), program])),
    blocks: [...new Map(all.flatMap(({ blocks }) => blocks.map((block) => [block.name, block] as const))).values()],
    readsSceneColour: all.some(({ readsSceneColour }) => readsSceneColour),
    transmits: all.some(({ transmits }) => transmits),
    mirrors: all.some(({ mirrors }) => mirrors),
    welded: all.some(({ welded }) => welded),
    moves: all.some(({ moves }) => moves),
  };
}

/**
 * `vec4 paintOutlet(int outlet)`: computes along the line and comes back as soon as the wanted value is known.
 *
 * @param first the index of the first one
 */
function outletPainter(whole: Line, results: readonly Expression[], first: number): IrFunction {
  const line = dropDead(whole, results);
  const index = local('outlet', INT);
  const places = new Map(line.map((declared, at) => [declared.name, at]));
  const ready = results.map((result) => lastNeeded(result, places));
  const body: Statement[] = [];
  const answer = (at: number): void =>
    results.forEach((result, place) => {
      if (ready[place] !== at) return;
      const condition: Expression = { op: 'binary', operator: '==', left: index, right: constant(INT, [first + place]), type: BOOL };
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
