import type { GraphNode } from '@brelvin/contract';
import { hasCurve, PARAMETER_KIND, type NodeKind } from '@brelvin/core';

/** Sizes of cards in graph units; the stylesheet uses the same. */
export const CARD_WIDTH = 172;
export const HEADER_HEIGHT = 24;
export const ROW_HEIGHT = 20;
export const PREVIEW_HEIGHT = 48;
export const CURVE_HEIGHT = 44;
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

const FEATURES_IN_A_ROW = 3;

/** What a kind can switch on stands below its inlets. */
export function featureRows({ features = [] }: NodeKind): number {
  return Math.ceil(features.length / FEATURES_IN_A_ROW);
}

/** What of a node makes its card higher. */
type Shown = Pick<GraphNode, 'preview'>;

/** A title with a small picture beside it is as high as the picture. */
export function headerHeight({ preview }: Shown): number {
  return preview ? PREVIEW_HEIGHT : HEADER_HEIGHT;
}

export function cardHeight(kind: NodeKind, node: Shown = {}): number {
  const rows = outletRows(kind) + valueRows(kind) + kind.inlets.length + featureRows(kind);
  return headerHeight(node) + rows * ROW_HEIGHT + (hasCurve(kind.id) ? CURVE_HEIGHT : 0) + FOOT_HEIGHT;
}

/** The rectangle of a card; one of an unknown kind has no rows. */
export function cardBox(node: Point & Shown, kind: NodeKind | undefined): { x: number; y: number; width: number; height: number } {
  return { x: node.x, y: node.y, width: CARD_WIDTH, height: kind ? cardHeight(kind, node) : HEADER_HEIGHT + FOOT_HEIGHT };
}

export function outletPoint(node: Pick<GraphNode, 'x' | 'y' | 'preview'>, kind: NodeKind, outlet: string): Point {
  const index = kind.outlets.findIndex((each) => each.name === outlet);
  const y = outletRows(kind) > 0 ? headerHeight(node) + (Math.max(index, 0) + 0.5) * ROW_HEIGHT : headerHeight(node) / 2;
  return { x: node.x + CARD_WIDTH, y: node.y + y };
}

export function inletPoint(node: Pick<GraphNode, 'x' | 'y' | 'preview'>, kind: NodeKind, inlet: string): Point {
  const index = kind.inlets.findIndex((each) => each.name === inlet);
  const rows = outletRows(kind) + valueRows(kind) + Math.max(index, 0);
  return { x: node.x, y: node.y + headerHeight(node) + (rows + 0.5) * ROW_HEIGHT };
}
