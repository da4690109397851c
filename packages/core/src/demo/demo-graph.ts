import { EMPTY_GRAPH, type Graph, type GraphNode, type InletValue } from '../document/graph';

/** A graph in short: nodes as kind, place and values, ribbons as `inlet key: node.outlet`. */
export function graph(
  nodes: Record<string, [kind: string, x: number, y: number, values?: Record<string, InletValue>]>,
  ribbons: Record<string, string>,
): Graph {
  return {
    ...EMPTY_GRAPH,
    nodes: Object.fromEntries(
      Object.entries(nodes).map(([id, [kind, x, y, values = {}]]): [string, GraphNode] => [id, { kind, rev: 1, x, y, values }]),
    ),
    ribbons: Object.fromEntries(
      Object.entries(ribbons).map(([inlet, outlet]) => {
        const [from = '', name = ''] = outlet.split('.');
        return [inlet, { from, outlet: name }];
      }),
    ),
  };
}
