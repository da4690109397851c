import type { GraphNode, MaterialParameter, Change } from '@brelvin/contract';
import type { NodeKind } from '../catalogue/kind';
import { joinEdits, type Edit } from '../document/edit';
import { inletOf, type InletAddress, type OutletAddress } from '../document/graph';
import { incomingRibbons } from '../document/incoming-ribbons';
import { addParameter, freeParameterName } from '../document/material-edits';
import { fittingInlet, fittingOutlet, kindInletTypes, kindOutletTypes } from './fitting';
import { reachesDock } from './graph-order';
import { conversion } from './ribbon-type';
import type { TypedGraph } from './typed-graph';

/**
 * Takes nodes away and closes the gaps: what ran into the first fitting inlet of a node runs on to where its
 * outlet went.
 */
export function removeHealed(typed: TypedGraph, ids: ReadonlySet<string>): Edit {
  const { edits, graph, material } = typed;
  const removal = edits.remove(material, ids);
  const healed = Object.entries(graph.ribbons).flatMap(([key, ribbon]): readonly Change[] => {
    const to = inletOf(key);
    if (!ids.has(ribbon.from) || ids.has(to.node)) return [];
    const source = through(typed, { node: ribbon.from, outlet: ribbon.outlet }, to, ids);
    return source ? edits.connect(source, to).changes : [];
  });
  return { label: removal.label, changes: [...removal.changes, ...healed] };
}

/** The nearest outlet before nodes that go, which `to` can take. Does not recurse: a chain may be long. */
function through(typed: TypedGraph, start: OutletAddress, to: InletAddress, ids: ReadonlySet<string>): OutletAddress | undefined {
  const wanted = typed.inletType(to);
  const seen = new Set<string>();
  let at: OutletAddress | undefined = start;
  while (at && ids.has(at.node)) {
    if (seen.has(at.node) || !wanted) return undefined;
    seen.add(at.node);
    at = typed
      .inlets(at.node)
      .map(({ spec }) => typed.sourceOf({ node: at?.node ?? '', inlet: spec.name }))
      .find((source) => {
        const given = source && typed.outletType(source);
        return given !== undefined && conversion(given, wanted) !== undefined;
      });
  }
  return at;
}

/** Puts a node that nothing is connected to into a ribbon; nothing when it does not fit there. */
export function insertIntoRibbon(typed: TypedGraph, to: InletAddress, id: string, kind: NodeKind): Edit | undefined {
  const source = typed.sourceOf(to);
  const given = source && typed.outletType(source);
  const wanted = typed.inletType(to);
  if (!source || !given || !wanted || source.node === id || to.node === id) return undefined;
  const [inlet, outlet] = [fittingInlet(kind, given), fittingOutlet(kind, wanted)];
  if (!inlet || !outlet) return undefined;
  return joinEdits(
    `Insert ${kind.title}`,
    typed.edits.connect(source, { node: id, inlet: inlet.name }),
    typed.edits.connect({ node: id, outlet: outlet.name }, to),
  );
}

/** Whether a node has no ribbons at all. */
export function isLoose({ graph }: Pick<TypedGraph, 'graph'>, id: string): boolean {
  return Object.entries(graph.ribbons).every(([key, ribbon]) => ribbon.from !== id && inletOf(key).node !== id);
}

/** Where the ribbons at a node go when another kind takes its place; those for which there is nothing are let go. */
interface SwapPlan {
  readonly incoming: readonly { readonly inlet: string; readonly source: OutletAddress; readonly next?: string }[];
  readonly outgoing: readonly { readonly to: InletAddress; readonly outlet: string; readonly next?: string }[];
}

/** Ribbons stay where the new kind has an inlet or outlet of the same name, else where one of fitting type is left. */
function planSwap(typed: TypedGraph, id: string, kind: NodeKind): SwapPlan {
  const { ribbons } = typed.graph;
  const free = new Set(kind.inlets.map(({ name }) => name));
  const ends = Object.entries(ribbons).map(([key, ribbon]) => ({ to: inletOf(key), ribbon }));
  const incoming = ends.filter(({ to }) => to.node === id);
  // Same names first, so that nothing else takes their place.
  incoming.sort((a, b) => Number(free.has(b.to.inlet)) - Number(free.has(a.to.inlet)));
  return {
    incoming: incoming.map(({ to: { inlet }, ribbon }) => {
      const source = { node: ribbon.from, outlet: ribbon.outlet };
      const given = typed.outletType(source);
      const fits = (name: string): boolean =>
        given !== undefined && free.has(name) && kindInletTypes(kind, name).some((type) => conversion(given, type) !== undefined);
      const next = fits(inlet) ? inlet : kind.inlets.map(({ name }) => name).find(fits);
      if (next !== undefined) free.delete(next);
      return { inlet, source, next };
    }),
    outgoing: ends
      .filter(({ ribbon }) => ribbon.from === id)
      .map(({ to, ribbon: { outlet } }) => {
        const wanted = typed.inletType(to);
        const fits = (name: string): boolean =>
          wanted !== undefined && kindOutletTypes(kind, name).some((type) => conversion(type, wanted) !== undefined);
        return { to, outlet, next: fits(outlet) ? outlet : kind.outlets.map(({ name }) => name).find(fits) };
      }),
  };
}

/** How many ribbons are let go when a kind takes a node's place. */
export function lostBySwap(typed: TypedGraph, id: string, kind: NodeKind): number {
  const { incoming, outgoing } = planSwap(typed, id, kind);
  return [...incoming, ...outgoing].filter(({ next }) => next === undefined).length;
}

/** Puts another kind of node in a node's place; values stay by name, ribbons as `planSwap` says. */
export function swapKind(typed: TypedGraph, id: string, kind: NodeKind): Edit | undefined {
  const { graph, edits } = typed;
  const node = graph.nodes[id];
  if (!node) return undefined;
  const known = new Set(kind.inlets.map((spec) => spec.name));
  const ofKnown = (numbers: GraphNode['values'] = {}): GraphNode['values'] =>
    Object.fromEntries(Object.entries(numbers).filter(([name]) => known.has(name)));
  const put: GraphNode = {
    kind: kind.id,
    rev: kind.rev,
    x: node.x,
    y: node.y,
    values: ofKnown(node.values),
    ...(node.factors && { factors: ofKnown(node.factors) }),
    ...(node.image && { image: node.image }),
  };
  const changes: Change[] = [edits.putNode(id, put)];
  const { incoming, outgoing } = planSwap(typed, id, kind);
  for (const { inlet, source, next } of incoming) {
    if (next === inlet) continue;
    changes.push(...edits.disconnect({ node: id, inlet }).changes);
    if (next !== undefined) changes.push(...edits.connect(source, { node: id, inlet: next }).changes);
  }
  for (const { to, outlet, next } of outgoing) {
    if (next === undefined) changes.push(...edits.disconnect(to).changes);
    else if (next !== outlet) changes.push(...edits.connect({ node: id, outlet: next }, to).changes);
  }
  return { label: `Swap for ${kind.title}`, changes };
}

/**
 * Makes a parameter of an open inlet: it takes the inlet's value, a range that holds it, and a node that reads it runs in.
 *
 * @param settle finds room for that node, near where it would best stand
 */
export function promote(
  typed: TypedGraph,
  at: InletAddress,
  newId: () => string,
  settle: (near: Place, name: string) => Place = (near) => near,
): { edit: Edit; parameter: string } | undefined {
  const { material, edits, graph } = typed;
  const node = graph.nodes[at.node];
  const inlet = typed.inlets(at.node).find((each) => each.spec.name === at.inlet);
  if (!node || !inlet || inlet.ribbon || 'surface' in inlet.spec.default) return undefined;
  const { spec, type } = inlet;
  if (type !== 'number' && type !== 'colour' && type !== 'stops') return undefined;
  const fallback = 'value' in spec.default ? spec.default.value : [0];
  const typedIn = node.values[at.inlet] ?? fallback;
  const numbers = typeof typedIn === 'number' ? [typedIn] : typedIn;
  const order = Math.max(-1, ...Object.values(material.parameters).map((each) => each.order)) + 1;
  const name = freeParameterName(material, spec.label);
  const number = numbers[0] ?? 0;
  const parameter: MaterialParameter = {
    name,
    type,
    ...(type === 'stops'
      ? { value: numbers }
      : type === 'colour'
        ? { value: [0, 1, 2].map((index) => numbers[index] ?? number) }
        : { value: number, ...rangeRound(number, spec) }),
    ...(spec.help ? { help: spec.help } : {}),
    ...(spec.unit ? { unit: spec.unit } : {}),
    order,
  };
  const [parameterId, nodeId] = [newId(), newId()];
  const row = Math.max(0, typed.inlets(at.node).indexOf(inlet));
  const { x, y } = settle({ x: node.x - 220, y: node.y + row * 20 }, name);
  const reader: GraphNode = { kind: 'parameter', rev: 1, x, y, values: {} };
  return {
    parameter: parameterId,
    edit: joinEdits(
      `Make ${spec.label} a parameter`,
      addParameter(parameterId, parameter, nodeId, reader, edits),
      edits.connect({ node: nodeId, outlet: 'result' }, at),
    ),
  };
}

interface Place {
  readonly x: number;
  readonly y: number;
}

/** The inlet's range, widened to 1, 2 or 5 times a power of ten where the value lies beyond; from 0, or both ways, where it has none. */
function rangeRound(value: number, { low, high }: { readonly low?: number; readonly high?: number }): { low: number; high: number } {
  const wide = roundUp(Math.abs(value));
  return {
    low: low !== undefined && low <= value ? low : value < 0 ? -wide : 0,
    high: high !== undefined && high >= value ? high : Math.max(wide, 0),
  };
}

function roundUp(size: number): number {
  if (size <= 1) return 1;
  const decade = 10 ** Math.floor(Math.log10(size));
  return decade * ([1, 2, 5].find((factor) => factor * decade >= size) ?? 10);
}

/** Nodes of the graph that nothing carries to its dock. */
export function unusedNodes({ graph }: Pick<TypedGraph, 'graph'>): ReadonlySet<string> {
  const used = reachesDock(incomingRibbons(graph));
  return new Set(Object.keys(graph.nodes).filter((id) => !used.has(id)));
}
