import { functionsOf } from '../catalogue/function-kind';
import { CARRY_KIND } from '../catalogue/kind';
import type { Library } from '../catalogue/library';
import { DOCK } from '../document/graph';
import type { MaterialSource } from '../document/material';
import type { Expression, Module } from '../ir/ir';
import { reachesAny } from './graph-order';
import { MOST_CARRIED, MOST_IMAGES, TOO_MANY_CARRIED } from './limits';
import { STAYS } from './link-surface';
import { SharedLowering, StageLowering, type LoweredStage, type WantedOutlet } from './lower';
import type { GraphProblem, ResolvedGraph } from './resolve';

/** The inlet of the dock that moves vertices. */
const OFFSET = 'offset';

export interface LoweredStages {
  readonly shared: SharedLowering;
  readonly pixel: LoweredStage;
  /** Where something moves vertices or is carried from them: the offset, then what is carried. */
  readonly vertex?: LoweredStage;
  /** Whether vertices are moved. */
  readonly shaped: boolean;
  /** The outlets that have a value at a point, in the order of their results behind those of the dock. */
  readonly outlets: readonly WantedOutlet[];
}

/**
 * Lowers what runs into the dock, and outlets on request, stage by stage.
 *
 * @param inlets of the dock, whose values are the pixel stage's first results
 */
export function lowerStages(
  resolved: ResolvedGraph,
  material: MaterialSource,
  library: Library,
  inlets: readonly string[],
  wanted: readonly WantedOutlet[] = [],
): LoweredStages {
  const shared = new SharedLowering(resolved, material, library, withOwnFunctions(library.module, resolved));
  const carries = (node: string): boolean => resolved.nodes.get(node)?.kind.id === CARRY_KIND;
  const pixels = new Set(inlets);
  const reached = reachesAny(resolved.incoming, [DOCK, ...wanted.map(({ node }) => node)], (node, inlet) =>
    node === DOCK ? pixels.has(inlet) : !carries(node),
  );
  const lowering = new StageLowering(shared, 'pixel', reached);
  const results: Expression[] = inlets.map((inlet) => lowering.dock(inlet));
  const outlets: WantedOutlet[] = [];
  for (const outlet of wanted) {
    const value = lowering.outlet(outlet);
    if (!value) continue;
    outlets.push(outlet);
    results.push(value);
  }
  const pixel = lowering.finish(results);
  const shaped = resolved.dock.some(({ spec, ribbon }) => spec.name === OFFSET && ribbon);
  return { shared, pixel, vertex: lowerVertices(shared, shaped), shaped, outlets };
}

/** The library with the functions that nodes bring along. */
function withOwnFunctions(module: Module, resolved: ResolvedGraph): Module {
  const own = functionsOf([...resolved.nodes.values()].map(({ kind }) => kind));
  return own.length > 0 ? { ...module, functions: new Map([...module.functions, ...own]) } : module;
}

function lowerVertices(shared: SharedLowering, shaped: boolean): LoweredStage | undefined {
  const { carried, resolved } = shared;
  if (!shaped && carried.length === 0) return undefined;
  const sources = carried.map(({ node }) => node);
  const reached = reachesAny(resolved.incoming, [DOCK, ...sources], (node, inlet) => node !== DOCK || (shaped && inlet === OFFSET));
  const lowering = new StageLowering(shared, 'vertex', reached);
  return lowering.finish([shaped ? lowering.dock(OFFSET) : STAYS, ...sources.map((node) => lowering.firstInlet(node))]);
}

/** What a device would refuse. */
export function graphProblems(resolved: ResolvedGraph, { images, carried }: SharedLowering): GraphProblem[] {
  const problems: GraphProblem[] = [];
  if (images.length > MOST_IMAGES) {
    const beyond = images[MOST_IMAGES]?.image;
    const node = [...resolved.nodes.values()].find((each) => each.node?.image === beyond)?.id ?? '';
    problems.push({
      node,
      message: `A material may read ${MOST_IMAGES} different images; this is one too many. Pack channels into one image.`,
    });
  }
  const over = carried[MOST_CARRIED];
  if (over) problems.push({ node: over.node, message: TOO_MANY_CARRIED });
  return problems;
}
