import { PARAMETER_KIND, type GraphNode, type NodeKind } from '@brelvin/core';

/** Sizes of cards in graph units; the stylesheet uses the same. */
export const CARD_WIDTH = 172;
export const HEADER_HEIGHT = 24;
export const ROW_HEIGHT = 20;
const FOOT_HEIGHT = 8;

export interface Point {
  readonly x: number;
  readonly y: number;
}

/** A single outlet sits in the title row; several have rows of their own below it. */
export function outletRows(kind: NodeKind): number {
  return kind.outlets.length > 1 ? kind.outlets.length : 0;
}

/** A parameter's card has a row for its value. */
export function valueRows(kind: NodeKind): number {
  return kind.id === PARAMETER_KIND ? 1 : 0;
}

export function cardHeight(kind: NodeKind): number {
  return HEADER_HEIGHT + (outletRows(kind) + valueRows(kind) + kind.inlets.length) * ROW_HEIGHT + FOOT_HEIGHT;
}

/** The rectangle of a card; one of an unknown kind has no rows. */
export function cardBox(node: Point, kind: NodeKind | undefined): { x: number; y: number; width: number; height: number } {
  return { x: node.x, y: node.y, width: CARD_WIDTH, height: kind ? cardHeight(kind) : HEADER_HEIGHT + FOOT_HEIGHT };
}

export function outletPoint(node: Pick<GraphNode, 'x' | 'y'>, kind: NodeKind, outlet: string): Point {
  const index = kind.outlets.findIndex((each) => each.name === outlet);
  const y = outletRows(kind) > 0 ? HEADER_HEIGHT + (Math.max(index, 0) + 0.5) * ROW_HEIGHT : HEADER_HEIGHT / 2;
  return { x: node.x + CARD_WIDTH, y: node.y + y };
}

export function inletPoint(node: Pick<GraphNode, 'x' | 'y'>, kind: NodeKind, inlet: string): Point {
  const index = kind.inlets.findIndex((each) => each.name === inlet);
  const rows = outletRows(kind) + valueRows(kind) + Math.max(index, 0);
  return { x: node.x, y: node.y + HEADER_HEIGHT + (rows + 0.5) * ROW_HEIGHT };
}
