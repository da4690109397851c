import type { Graph, GraphNode, InletValue } from '@brelvin/contract';
import { EMPTY_GRAPH } from './graph';

/** A graph in short: nodes as kind, place, values and features, ribbons as `inlet key: node.outlet`. */
export function graphInShort(
  nodes: Record<string, [kind: string, x: number, y: number, values?: Record<string, InletValue>, features?: readonly string[]]>,
  ribbons: Record<string, string>,
): Graph {
  return {
    ...EMPTY_GRAPH,
    nodes: Object.fromEntries(
      Object.entries(nodes).map(([id, [kind, x, y, values = {}, features]]): [string, GraphNode] => [
        id,
        { kind, rev: 1, x, y, values, ...(features ? { features } : {}) },
      ]),
    ),
    ribbons: Object.fromEntries(
      Object.entries(ribbons).map(([inlet, outlet]) => {
        const [from = '', name = ''] = outlet.split('.');
        return [inlet, { from, outlet: name }];
      }),
    ),
  };
}
