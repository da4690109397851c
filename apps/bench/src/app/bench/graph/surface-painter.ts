import type { TypedGraph } from '@brelvin/core';
import { paintFromFar } from './card-painter';
import type { Gesture } from './gestures/gesture';
import type { SurfaceMeasure } from './graph-shapes';
import type { GraphView } from '../editors/graph-view';
import type { PlacedGraph, Rectangle } from '../editors/placed-graph';
import { paintRibbons, type RibbonInk, type RibbonShape } from './ribbon-painter';

/** What is on the canvas behind the cards. */
export interface SurfacePicture {
  readonly typed: TypedGraph;
  readonly placed: PlacedGraph;
  readonly view: GraphView;
  readonly measure: SurfaceMeasure;
  /** Ribbons that are seen; not asked for where they are drawn from far away. */
  readonly shapes: () => readonly RibbonShape[];
  /** Whether cards stand in the page; otherwise they are drawn too. */
  readonly detailed: boolean;
  readonly gesture?: Gesture;
}

/** Draws ribbons, cards that are seen from far away, and what a gesture shows; in the colours of the room. */
export function paintSurface(canvas: HTMLCanvasElement, { typed, placed, view, measure, shapes, detailed, gesture }: SurfacePicture): void {
  const context = canvas.getContext('2d');
  if (!context) return;
  const ratio = devicePixelRatio;
  const size = { width: Math.round(measure.width * ratio), height: Math.round(measure.height * ratio) };
  if (canvas.width !== size.width || canvas.height !== size.height) Object.assign(canvas, size);
  context.setTransform(ratio, 0, 0, ratio, 0, 0);
  context.clearRect(0, 0, measure.width, measure.height);
  const ink = inkOf(canvas);
  const carried = gesture?.carried ? [gesture.carried] : [];
  if (!detailed) paintFromFar(context, typed, placed, view, measure, ink);
  paintRibbons(context, detailed ? [...shapes(), ...carried] : carried, view.transform.zoom, ink);
  if (gesture?.frame && gesture.frame.width > 0) paintFrame(context, gesture.frame, ink);
}

function paintFrame(context: CanvasRenderingContext2D, { x, y, width, height }: Rectangle, ink: RibbonInk): void {
  context.setLineDash([5, 3]);
  context.strokeStyle = ink.text;
  context.lineWidth = 1;
  context.strokeRect(x + 0.5, y + 0.5, width, height);
  context.setLineDash([]);
}

function inkOf(canvas: HTMLCanvasElement): RibbonInk {
  const style = getComputedStyle(canvas);
  const read = (name: string): string => style.getPropertyValue(name).trim();
  return {
    thread: read('--thread'),
    glow: read('--thread-light'),
    ground: read('--ground'),
    text: read('--text'),
    panel: read('--panel'),
    chosen: read('--chosen'),
  };
}
