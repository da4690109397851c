import type { TypedGraph } from '@brelvin/core';
import type { Point } from '../editors/card-layout';
import type { GraphView, ViewTransform } from '../editors/graph-view';
import { portEnd, type PlacedGraph, type Rectangle, type RibbonEnd } from '../editors/placed-graph';
import { distanceTo, ribbonPath } from './ribbon-path';
import { ribbonScale, type RibbonShape } from './ribbon-painter';

/** What the painter needs to know of the surface. */
export interface SurfaceMeasure {
  readonly width: number;
  readonly height: number;
}

export function overlaps(a: Rectangle, b: Rectangle): boolean {
  return a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;
}

export function encloses(outer: Rectangle, inner: Rectangle): boolean {
  return (
    outer.x <= inner.x &&
    outer.y <= inner.y &&
    outer.x + outer.width >= inner.x + inner.width &&
    outer.y + outer.height >= inner.y + inner.height
  );
}

/** The part of the graph that is on the screen. */
export function seenOf(view: GraphView, { width, height }: SurfaceMeasure): Rectangle {
  const { zoom } = view.transform;
  return { ...view.toGraph({ x: 0, y: 0 }), width: width / zoom, height: height / zoom };
}

/**
 * The part of the graph whose cards stand in the page: what is seen and a margin round it. It stays as it is while it
 * covers what is seen, so that a pan seldom changes the page, and shrinks again after zooming in.
 */
export function readyRound(seen: Rectangle, before: Rectangle, margin: number): Rectangle {
  if (encloses(before, seen) && before.width <= seen.width + 4 * margin) return before;
  return { x: seen.x - margin, y: seen.y - margin, width: seen.width + 2 * margin, height: seen.height + 2 * margin };
}

function endOnScreen(end: RibbonEnd, view: GraphView, surface: SurfaceMeasure): Point {
  return 'at' in end ? view.toScreen(end.at) : { x: end.edge === 'left' ? 0 : surface.width, y: end.y };
}

/** Where an inlet or outlet is on the screen; nothing when its node is gone or unknown. */
export function portOnScreen(
  typed: TypedGraph,
  view: GraphView,
  surface: SurfaceMeasure,
  node: string,
  side: 'inlet' | 'outlet',
  name: string,
): Point | undefined {
  const end = portEnd(typed, node, side, name);
  return end && endOnScreen(end, view, surface);
}

/** All ribbons of a graph that may be seen. */
export function ribbonShapes(
  { ribbons }: PlacedGraph,
  wrong: ReadonlySet<string>,
  unused: ReadonlySet<string>,
  view: GraphView,
  surface: SurfaceMeasure,
): RibbonShape[] {
  const selection = view.selection();
  const shapes: RibbonShape[] = [];
  for (const { key, ribbon, from: start, to: end, target, type, conversion } of ribbons.values()) {
    const from = endOnScreen(start, view, surface);
    const to = endOnScreen(end, view, surface);
    const bends = (ribbon.bends ?? []).map(([x = 0, y = 0]) => view.toScreen({ x, y }));
    if (outside([from, to, ...bends], surface)) continue;
    const lifted = selection.has(ribbon.from) || selection.has(target);
    shapes.push({ key, from, to, bends, type, conversion, wrong: wrong.has(key), lifted, dim: unused.has(target) });
  }
  return shapes;
}

function outside(points: readonly Point[], { width, height }: SurfaceMeasure): boolean {
  const all = (test: (point: Point) => boolean): boolean => points.every(test);
  return all(({ x }) => x < -40) || all(({ x }) => x > width + 40) || all(({ y }) => y < -40) || all(({ y }) => y > height + 40);
}

export interface RibbonHit {
  readonly shape: RibbonShape;
  /** Which bend is there; -1 for none. */
  readonly bend: number;
  /** Where among the bends a new one would stand. */
  readonly place: number;
}

const NEAR = 6;

/** The ribbon at a place of the screen. */
export function ribbonAt(shapes: readonly RibbonShape[], at: Point, zoom: number): RibbonHit | undefined {
  for (const shape of [...shapes].reverse()) {
    const bend = shape.bends.findIndex((point) => Math.hypot(point.x - at.x, point.y - at.y) < NEAR + 2);
    const { distance, segment } = distanceTo(ribbonPath(shape.from, shape.to, shape.bends, ribbonScale(zoom)), at);
    if (bend < 0 && distance > NEAR) continue;
    // With bends, the first segment is the stub at the outlet.
    const place = Math.min(Math.max(segment - 1, 0), shape.bends.length);
    return { shape, bend, place };
  }
  return undefined;
}

/** The ribbon whose line crosses a rectangle of the screen, the longest way through it first. */
export function ribbonThrough(shapes: readonly RibbonShape[], box: Rectangle, zoom: number): RibbonShape | undefined {
  const middle = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  const near = shapes
    .map((shape) => ({ shape, ...distanceTo(ribbonPath(shape.from, shape.to, shape.bends, ribbonScale(zoom)), middle) }))
    .filter(({ distance }) => distance < Math.min(box.width, box.height) / 2)
    .sort((a, b) => a.distance - b.distance);
  return near[0]?.shape;
}

/** Rectangles of all cards, areas and notes, or of those that are chosen. */
export function boxesOf(typed: TypedGraph, placed: PlacedGraph, chosen?: ReadonlySet<string>): Rectangle[] {
  const boxes: Rectangle[] = [];
  forEachBox(typed, placed, (id, box) => {
    if (chosen === undefined || chosen.has(id)) boxes.push(box);
  });
  return boxes;
}

/** What a frame in the graph chooses: cards and notes that it touches, areas that lie in it whole. */
export function chosenByFrame(typed: TypedGraph, placed: PlacedGraph, frame: Rectangle): string[] {
  const { areas } = typed.graph;
  const chosen: string[] = [];
  forEachBox(typed, placed, (id, box) => {
    if (areas[id] ? encloses(frame, box) : overlaps(frame, box)) chosen.push(id);
  });
  return chosen;
}

function forEachBox({ graph }: TypedGraph, { cards }: PlacedGraph, visit: (id: string, box: Rectangle) => void): void {
  for (const { id, box } of cards.values()) visit(id, box);
  for (const [id, area] of Object.entries(graph.areas)) visit(id, area);
  for (const [id, note] of Object.entries(graph.notes)) visit(id, note);
}

/** The rectangle round all; nothing without any. */
export function boundsOfBoxes(boxes: readonly Rectangle[]): Rectangle | undefined {
  if (boxes.length === 0) return undefined;
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const { x, y, width, height } of boxes) {
    left = Math.min(left, x);
    top = Math.min(top, y);
    right = Math.max(right, x + width);
    bottom = Math.max(bottom, y + height);
  }
  return { x: left, y: top, width: right - left, height: bottom - top };
}

const MARGIN = 40;

/** The pan and zoom that show boxes with some room round them. */
export function fitBoxes(boxes: readonly Rectangle[], { width, height }: SurfaceMeasure): ViewTransform {
  const bounds = boundsOfBoxes(boxes);
  if (!bounds) return { x: width / 4, y: height / 4, zoom: 1 };
  const zoom = Math.max(Math.min(1, (width - MARGIN * 2) / bounds.width, (height - MARGIN * 2) / bounds.height), 0.03);
  return {
    x: (width - bounds.width * zoom) / 2 - bounds.x * zoom,
    y: (height - bounds.height * zoom) / 2 - bounds.y * zoom,
    zoom,
  };
}
