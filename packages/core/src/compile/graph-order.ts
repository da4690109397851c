import { DOCK, inletOf, type Graph, type Ribbon } from '../document/graph';

export interface IncomingRibbon extends Ribbon {
  readonly inlet: string;
}

export type IncomingRibbons = ReadonlyMap<string, readonly IncomingRibbon[]>;

type Ribbons = Graph['ribbons'];

const known = new WeakMap<Ribbons, IncomingRibbons>();

/**
 * The ribbons of a graph by the node (or dock) they run into. Found once as long as no ribbon changes.
 *
 * @param before an earlier state of the graph: nodes whose ribbons are the same objects keep their list
 */
export function incomingRibbons({ ribbons }: Pick<Graph, 'ribbons'>, before?: Pick<Graph, 'ribbons'>): IncomingRibbons {
  const base = before && known.get(before.ribbons);
  const found = known.get(ribbons) ?? (before && base ? sortChanged(ribbons, before.ribbons, base) : sortRibbons(ribbons));
  known.set(ribbons, found);
  return found;
}

function sortRibbons(ribbons: Ribbons, only?: ReadonlySet<string>): Map<string, readonly IncomingRibbon[]> {
  const incoming = new Map<string, IncomingRibbon[]>();
  for (const [key, ribbon] of Object.entries(ribbons)) {
    const { node, inlet } = inletOf(key);
    if (only && !only.has(node)) continue;
    const list = incoming.get(node);
    if (list) list.push({ ...ribbon, inlet });
    else incoming.set(node, [{ ...ribbon, inlet }]);
  }
  return incoming;
}

function sortChanged(ribbons: Ribbons, before: Ribbons, base: IncomingRibbons): IncomingRibbons {
  const touched = new Set<string>();
  for (const key of Object.keys(ribbons)) if (ribbons[key] !== before[key]) touched.add(inletOf(key).node);
  for (const key of Object.keys(before)) if (!Object.hasOwn(ribbons, key)) touched.add(inletOf(key).node);
  if (touched.size === 0) return base;
  const incoming = new Map(base);
  for (const node of touched) incoming.delete(node);
  for (const [node, list] of sortRibbons(ribbons, touched)) incoming.set(node, list);
  return incoming;
}

export interface GraphOrder {
  /** Node ids, each after everything that runs into it; nodes on a cycle are left out. */
  readonly order: readonly string[];
  /** The nodes of a cycle in the direction of the ribbons, when there is one. */
  readonly cycle?: readonly string[];
}

/** Sorts nodes so that sources come first. Does not recurse: a chain may be as long as the graph. */
export function orderGraph(graph: { readonly nodes: Readonly<Record<string, unknown>> }, incoming: IncomingRibbons): GraphOrder {
  const state = new Map<string, 'open' | 'done'>();
  const order: string[] = [];
  let cycle: string[] | undefined;
  for (const start of Object.keys(graph.nodes)) {
    const path: { node: string; next: number }[] = [];
    const enter = (node: string): void => {
      if (state.has(node) || !Object.hasOwn(graph.nodes, node)) return;
      state.set(node, 'open');
      path.push({ node, next: 0 });
    };
    enter(start);
    for (let top = path.at(-1); top; top = path.at(-1)) {
      const source = incoming.get(top.node)?.[top.next++]?.from;
      if (source === undefined) {
        state.set(top.node, 'done');
        path.pop();
        order.push(top.node);
      } else if (state.get(source) === 'open') {
        const loop = path.map((each) => each.node);
        cycle ??= loop.slice(loop.indexOf(source)).reverse();
      } else enter(source);
    }
  }
  if (!cycle) return { order };
  const onCycle = new Set(cycle);
  return { order: order.filter((node) => !onCycle.has(node)), cycle };
}

/**
 * The order of a graph of which an earlier order without a cycle is known. It is kept where it still holds, so that
 * only ribbons that changed are looked at; otherwise all is sorted again.
 */
export function orderAgain(
  graph: { readonly nodes: Readonly<Record<string, unknown>> },
  incoming: IncomingRibbons,
  before: { readonly order: readonly string[]; readonly incoming: IncomingRibbons },
): GraphOrder {
  const kept = before.order.filter((id) => Object.hasOwn(graph.nodes, id));
  const old = new Set(kept);
  const fresh = Object.fromEntries(Object.entries(graph.nodes).filter(([id]) => !old.has(id)));
  const added = orderGraph({ nodes: fresh }, incoming);
  const order = [...kept, ...added.order];
  const place = new Map(order.map((id, index) => [id, index]));
  const holds = order.every((id, index) => {
    const ribbons = incoming.get(id);
    return ribbons === before.incoming.get(id) || !ribbons || ribbons.every(({ from }) => (place.get(from) ?? -1) < index);
  });
  return holds && !added.cycle ? { order } : orderGraph(graph, incoming);
}

/** The path from `to` back to `from` that a new ribbon from → to would close into a cycle; nothing when it would not. */
export function cyclePath(graph: Pick<Graph, 'ribbons'>, from: string, to: string): readonly string[] | undefined {
  if (to === DOCK) return undefined;
  const incoming = incomingRibbons(graph);
  const cameFrom = new Map<string, string>([[from, '']]);
  const waiting = [from];
  for (let node = waiting.pop(); node !== undefined; node = waiting.pop()) {
    if (node === to) {
      const path = [node];
      for (let at = cameFrom.get(node); at; at = cameFrom.get(at)) path.push(at);
      return path;
    }
    for (const { from: source } of incoming.get(node) ?? []) {
      if (cameFrom.has(source)) continue;
      cameFrom.set(source, node);
      waiting.push(source);
    }
  }
  return undefined;
}

/** Everything whose value can reach the dock. */
export function reachesDock(incoming: IncomingRibbons): ReadonlySet<string> {
  return reachesAny(incoming, [DOCK]);
}

/**
 * Everything whose value can reach one of these nodes, themselves included.
 *
 * @param through whether what runs into a node counts; it does without
 */
export function reachesAny(
  incoming: IncomingRibbons,
  targets: Iterable<string>,
  through: (node: string, inlet: string) => boolean = () => true,
): ReadonlySet<string> {
  const reached = new Set(targets);
  const waiting = [...reached];
  for (let node = waiting.pop(); node !== undefined; node = waiting.pop()) {
    for (const { from, inlet } of incoming.get(node) ?? []) {
      if (reached.has(from) || !through(node, inlet)) continue;
      reached.add(from);
      waiting.push(from);
    }
  }
  return reached;
}
