import type { Graph } from '@brelvin/contract';

export const EMPTY_GRAPH: Graph = { nodes: {}, ribbons: {}, areas: {}, notes: {} };

/** Where a graph's results arrive: the Stage's edge, or the outlets of a group. */
export const DOCK = 'dock';
/** Where what runs into a group comes from, inside of it. */
export const ENTRY = 'entry';

export interface InletAddress {
  readonly node: string;
  readonly inlet: string;
}

export interface OutletAddress {
  readonly node: string;
  readonly outlet: string;
}

export function inletKey(node: string, inlet: string): string {
  return `${node}.${inlet}`;
}

export function inletOf(key: string): InletAddress {
  const dot = key.lastIndexOf('.');
  return { node: key.slice(0, dot), inlet: key.slice(dot + 1) };
}

/** The nodes whose outlets run into `node`, each once. */
export function sourcesOf(graph: Graph, node: string, inlets: readonly string[]): string[] {
  const found = inlets.map((inlet) => graph.ribbons[inletKey(node, inlet)]?.from).filter((each) => each !== undefined);
  return [...new Set(found)];
}
