import type { GraphNode } from '@brelvin/contract';
import { hasCurve, PARAMETER_KIND, type InletSpec, type NodeKind, type TypedGraph } from '@brelvin/core';
import { wordsWidth } from './words-width';

/** Sizes of cards in graph units; the stylesheet uses the same. */
export const NARROWEST_CARD = 172;
/** Longer names end in dots. */
const WIDEST = 360;
/** What stands beside a title: the outlet and the button to peek. */
const TITLE_REST = 52;
/** Of a row: the inlet before the label, gaps, and the margin behind. */
const ROW_REST = 18 + 4 + 8;
/** Of an outlet's row: margin, the button to peek, the outlet. */
const OUTLET_REST = 8 + 22 + 20;
/** A number, a colour, an image. */
const CONTROL_WIDTH = 78;
/** One of several numbers beside each other. */
const COMPONENT_WIDTH = 40;
/** What a choice needs beside its words. */
const CHOICE_REST = 24;
const FEATURE_REST = 10;
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
/** A few features with long names stand below each other sooner than they make their card wide. */
const WIDE_ENOUGH = 200;

/** As many as a card of the narrowest size has room for, or two. */
export function featureColumns({ features = [] }: NodeKind): number {
  const longest = Math.max(0, ...features.map(({ label }) => wordsWidth(label)));
  const most = features.length > FEATURES_IN_A_ROW || (longest + FEATURE_REST) * FEATURES_IN_A_ROW < WIDE_ENOUGH ? FEATURES_IN_A_ROW : 2;
  return Math.min(most, features.length);
}

/** What a kind can switch on stands below its inlets. */
export function featureRows(kind: NodeKind): number {
  return Math.ceil((kind.features ?? []).length / Math.max(featureColumns(kind), 1));
}

/** What of a node makes its card higher, or wider. */
type Shown = Pick<GraphNode, 'preview' | 'name'>;

/** How wide the control of an inlet is. */
export function controlWidth({ meaning, choices, default: fallback }: InletSpec): number {
  if (choices) return Math.max(CONTROL_WIDTH, Math.max(...choices.map((each) => wordsWidth(each))) + CHOICE_REST);
  if (meaning === 'ior') return 2 * COMPONENT_WIDTH + 14;
  const several = meaning !== 'colour' && meaning !== 'stops' && 'value' in fallback ? fallback.value.length : 1;
  return Math.max(CONTROL_WIDTH, several > 1 ? several * COMPONENT_WIDTH : 0);
}

/**
 * As wide as the longest of title, labels with their controls, and outlets; the same whatever is connected.
 *
 * @param title what stands in its title row; the kind's own title when absent
 */
export function cardWidth(kind: NodeKind, node: Shown = {}, title = node.name ?? kind.title): number {
  const { inlets, outlets, features = [] } = kind;
  const columns = featureColumns(kind);
  const needed = Math.max(
    NARROWEST_CARD,
    wordsWidth(title, 'bold') + TITLE_REST + (node.preview ? PREVIEW_HEIGHT : 8),
    ...inlets.map((inlet) => wordsWidth(inlet.label) + ROW_REST + ('surface' in inlet.default ? 0 : controlWidth(inlet) + 4)),
    ...(outlets.length > 1 ? outlets.map(({ label }) => wordsWidth(label) + OUTLET_REST) : []),
    ...features.map(({ label }) => (wordsWidth(label) + FEATURE_REST) * columns + 8),
  );
  return Math.ceil(Math.min(needed, WIDEST) / 4) * 4;
}

/** A title with a small picture beside it is as high as the picture. */
export function headerHeight({ preview }: Shown): number {
  return preview ? PREVIEW_HEIGHT : HEADER_HEIGHT;
}

export function cardHeight(kind: NodeKind, node: Shown = {}): number {
  const rows = outletRows(kind) + valueRows(kind) + kind.inlets.length + featureRows(kind);
  return headerHeight(node) + rows * ROW_HEIGHT + (hasCurve(kind.id) ? CURVE_HEIGHT : 0) + FOOT_HEIGHT;
}

/** The rectangle of a card; one of an unknown kind has no rows. Nothing without such a node. */
export function cardBox(typed: TypedGraph, id: string): { x: number; y: number; width: number; height: number } | undefined {
  const node = typed.graph.nodes[id];
  if (!node) return undefined;
  const { x, y } = node;
  const kind = typed.kind(id);
  if (!kind) return { x, y, width: NARROWEST_CARD, height: HEADER_HEIGHT + FOOT_HEIGHT };
  return { x, y, width: cardWidth(kind, node, typed.title(id)), height: cardHeight(kind, node) };
}

export function outletPoint(node: Point & Shown, kind: NodeKind, outlet: string, title?: string): Point {
  const index = kind.outlets.findIndex((each) => each.name === outlet);
  const y = outletRows(kind) > 0 ? headerHeight(node) + (Math.max(index, 0) + 0.5) * ROW_HEIGHT : headerHeight(node) / 2;
  return { x: node.x + cardWidth(kind, node, title), y: node.y + y };
}

export function inletPoint(node: Point & Shown, kind: NodeKind, inlet: string): Point {
  const index = kind.inlets.findIndex((each) => each.name === inlet);
  const rows = outletRows(kind) + valueRows(kind) + Math.max(index, 0);
  return { x: node.x, y: node.y + headerHeight(node) + (rows + 0.5) * ROW_HEIGHT };
}
