/** Half-open range of character offsets in one source text. */
export interface Range {
  readonly from: number;
  readonly to: number;
}

/**
 * Where a piece of IR comes from: a file of shading code, or a node of a graph
 * named by its instance path (`group/…/node`).
 */
export interface Origin {
  readonly path: string;
  readonly range?: Range;
}
