import { titleOfNode, type TypedGraph } from '@brelvin/core';
import type { SurfaceMeasure } from './graph-shapes';
import type { GraphView } from '../editors/graph-view';
import type { PlacedGraph, RibbonEnd } from '../editors/placed-graph';
import type { RibbonInk } from './ribbon-painter';

const SMALLEST_WORDS = 7;
const SMALLEST_WITH_WORDS = 0.16;

/**
 * Draws a graph that is seen from far away: ribbons as single lines, cards as plain boxes, with titles where they can
 * be read. All lines are one path and all boxes another, so that thousands cost little more than a few.
 */
export function paintFromFar(
  context: CanvasRenderingContext2D,
  typed: TypedGraph,
  placed: PlacedGraph,
  view: GraphView,
  measure: SurfaceMeasure,
  ink: RibbonInk,
): void {
  context.lineWidth = 1;
  paintLines(context, placed, view, measure, ink);
  const boxes = placed.cards.values();
  const selection = view.selection();
  const { x: left, y: top, zoom } = view.transform;
  const { width, height } = measure;
  const chosen = new Path2D();
  const seen: string[] = [];
  context.beginPath();
  for (const { id, box } of boxes) {
    const [x, y, wide, tall] = [box.x * zoom + left, box.y * zoom + top, box.width * zoom, box.height * zoom];
    if (x > width || y > height || x + wide < 0 || y + tall < 0) continue;
    seen.push(id);
    (selection.has(id) ? chosen : context).rect(x, y, wide, tall);
  }
  context.strokeStyle = ink.glow;
  context.fillStyle = ink.panel;
  context.fill();
  context.stroke();
  context.fillStyle = ink.chosen;
  context.fill(chosen);
  context.stroke(chosen);
  if (zoom >= SMALLEST_WITH_WORDS) paintTitles(context, typed, placed, seen, view, ink);
}

/** A line per ribbon, bends included. */
function paintLines(
  context: CanvasRenderingContext2D,
  { ribbons }: PlacedGraph,
  view: GraphView,
  { width, height }: SurfaceMeasure,
  ink: RibbonInk,
): void {
  const { x: left, y: top, zoom } = view.transform;
  const acrossOf = (end: RibbonEnd): number => ('at' in end ? end.at.x * zoom + left : end.edge === 'left' ? 0 : width);
  const downOf = (end: RibbonEnd): number => ('at' in end ? end.at.y * zoom + top : end.y);
  context.strokeStyle = ink.thread;
  context.beginPath();
  for (const { ribbon, from, to } of ribbons.values()) {
    const [x0, y0, x1, y1] = [acrossOf(from), downOf(from), acrossOf(to), downOf(to)];
    const bends = ribbon.bends ?? [];
    const outside = (x0 < 0 && x1 < 0) || (x0 > width && x1 > width) || (y0 < 0 && y1 < 0) || (y0 > height && y1 > height);
    if (outside && bends.length === 0) continue;
    context.moveTo(x0, y0);
    for (const [x = 0, y = 0] of bends) context.lineTo(x * zoom + left, y * zoom + top);
    context.lineTo(x1, y1);
  }
  context.stroke();
}

function paintTitles(
  context: CanvasRenderingContext2D,
  { catalogue, material }: TypedGraph,
  { cards }: PlacedGraph,
  seen: readonly string[],
  view: GraphView,
  ink: RibbonInk,
): void {
  const { zoom } = view.transform;
  const selection = view.selection();
  const size = Math.max(SMALLEST_WORDS, 26 * zoom);
  context.font = `${size}px system-ui, sans-serif`;
  context.textBaseline = 'middle';
  context.textAlign = 'left';
  for (const id of seen) {
    const card = cards.get(id);
    if (!card) continue;
    const at = view.toScreen(card.box);
    context.fillStyle = selection.has(id) ? ink.ground : ink.text;
    context.fillText(titleOfNode(catalogue, material, card.node), at.x + 3, at.y + size * 0.7, card.box.width * zoom - 6);
  }
}
