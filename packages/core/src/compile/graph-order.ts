import type { Graph } from '@brelvin/contract';
import { DOCK } from '../document/graph';
import { incomingRibbons, type IncomingRibbons } from '../document/incoming-ribbons';

const NONE: ReadonlySet<string> = new Set();

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

/** A graph's order, and how it came from an earlier one. */
export interface OrderAgain extends GraphOrder {
  /** Whether what is in both orders stands in the same order, and what is new behind it. */
  readonly kept: boolean;
  readonly added: ReadonlySet<string>;
  readonly gone: readonly string[];
}

/**
 * The order of a graph of which an earlier order without a cycle is known. It is kept where it still holds, so that
 * only nodes whose ribbons changed are looked at; otherwise all is sorted again.
 *
 * @param rewired nodes into which other ribbons run than before
 */
export function orderAgain(
  { nodes }: { readonly nodes: Readonly<Record<string, unknown>> },
  incoming: IncomingRibbons,
  before: { readonly order: readonly string[]; readonly nodes: { has(id: string): boolean } },
  rewired: ReadonlySet<string>,
): OrderAgain {
  const ids = Object.keys(nodes);
  const gone = before.order.filter((id) => !Object.hasOwn(nodes, id));
  const stayed = gone.length === 0 ? before.order : before.order.filter((id) => Object.hasOwn(nodes, id));
  const added = ids.length === stayed.length ? NONE : new Set(ids.filter((id) => !before.nodes.has(id)));
  const fresh = orderGraph({ nodes: Object.fromEntries([...added].map((id) => [id, nodes[id]])) }, incoming);
  const order = added.size === 0 ? stayed : [...stayed, ...fresh.order];
  const holds =
    !fresh.cycle &&
    stillSorted(
      order,
      [...rewired].filter((id) => !added.has(id)),
      incoming,
    );
  return { ...(holds ? { order } : orderGraph({ nodes }, incoming)), kept: holds, added, gone };
}

/** Whether all that runs into these nodes stands before them. */
function stillSorted(order: readonly string[], rewired: readonly string[], incoming: IncomingRibbons): boolean {
  const fed = rewired.filter((id) => incoming.has(id));
  if (fed.length === 0) return true;
  const place = new Map(order.map((id, index) => [id, index]));
  return fed.every((id) => {
    const own = place.get(id);
    return own === undefined || incoming.get(id)?.every(({ from }) => (place.get(from) ?? -1) < own);
  });
}

/** Nodes into which other ribbons run than in an earlier state. */
export function rewiredNodes(incoming: IncomingRibbons, before: IncomingRibbons): ReadonlySet<string> {
  if (incoming === before) return NONE;
  const found = new Set<string>();
  for (const [id, ribbons] of incoming) if (ribbons !== before.get(id)) found.add(id);
  for (const id of before.keys()) if (!incoming.has(id)) found.add(id);
  return found;
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
