import type { Graph, Ribbon } from '@brelvin/contract';
import { inletOf } from './graph';

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
