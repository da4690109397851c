/** A value typed into an inlet: a number, or components in order (colours scene-linear, stops as r g b position). */
export type InletValue = number | readonly number[];

/** A node where it lies on the graph; `x`, `y` in graph units, one unit a CSS pixel at zoom 1. */
export interface GraphNode {
  readonly kind: string;
  readonly rev: number;
  readonly x: number;
  readonly y: number;
  readonly values: Readonly<Record<string, InletValue>>;
  /** A name of its own, in place of its kind's title. */
  readonly name?: string;
  /** Whether it shows a small picture of its first outlet. */
  readonly preview?: boolean;
  /** For kind `parameter`: which one it reads. */
  readonly parameter?: string;
  /** For kind `group`: whose inside it stands for. */
  readonly group?: string;
  /** For kind `code`: functions, of which the last one is the node. */
  readonly code?: string;
  /** Which features of its kind are on. */
  readonly features?: readonly string[];
  /** For kind `image`: which of the material's images it reads. */
  readonly image?: string;
}

/** Runs from an outlet of a node. Where it arrives is its key: `node.inlet`, or `dock.inlet`. */
export interface Ribbon {
  readonly from: string;
  readonly outlet: string;
  /** Points it runs through on its way, x and y in graph units. */
  readonly bends?: readonly (readonly number[])[];
}

/** A titled region behind the nodes; graph units. */
export interface Area {
  readonly title: string;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** Words on the graph; graph units. */
export interface Note {
  readonly text: string;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/**
 * Nodes by id, ribbons by the inlet they end in: an inlet takes one ribbon, which the form makes certain.
 */
export interface Graph {
  readonly nodes: Readonly<Record<string, GraphNode>>;
  readonly ribbons: Readonly<Record<string, Ribbon>>;
  readonly areas: Readonly<Record<string, Area>>;
  readonly notes: Readonly<Record<string, Note>>;
}

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
