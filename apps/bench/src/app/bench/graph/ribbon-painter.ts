import type { RibbonType } from '@brelvin/contract';
import { threadCount } from '@brelvin/core';
import type { Point } from '../editors/card-layout';
import { beside, ribbonPath } from './ribbon-path';

/** A ribbon on the screen. */
export interface RibbonShape {
  /** The inlet it ends in; empty for one that is being carried. */
  readonly key: string;
  readonly from: Point;
  readonly to: Point;
  readonly bends: readonly Point[];
  readonly type: RibbonType;
  /** What its conversion shows, if anything. */
  readonly conversion: string;
  readonly wrong: boolean;
  readonly lifted: boolean;
  readonly dim: boolean;
}

export interface RibbonInk {
  readonly thread: string;
  readonly glow: string;
  readonly ground: string;
  readonly text: string;
  readonly panel: string;
  readonly chosen: string;
}

const THREAD_GAP = 3.5;
const CORNER = 12;
const SMALLEST_WITH_WORDS = 0.55;
const BEND_SIZE = 7;

export function ribbonScale(zoom: number): number {
  return Math.min(Math.max(zoom, 0.5), 1.25);
}

/** Draws all ribbons onto one canvas: parallel threads, one per component; light has a lit band behind its threads. */
export function paintRibbons(context: CanvasRenderingContext2D, shapes: readonly RibbonShape[], zoom: number, ink: RibbonInk): void {
  const scale = ribbonScale(zoom);
  for (const shape of shapes) paintRibbon(context, shape, scale, ink);
  if (zoom < SMALLEST_WITH_WORDS) return;
  for (const { from, to, conversion } of shapes) {
    if (conversion) label(context, { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 }, conversion, scale, ink);
  }
}

function paintRibbon(context: CanvasRenderingContext2D, shape: RibbonShape, scale: number, ink: RibbonInk): void {
  const { from, to, bends, type, wrong, lifted, dim } = shape;
  const threads = threadCount(type);
  const gap = THREAD_GAP * scale;
  const path = ribbonPath(from, to, bends, scale);
  context.globalAlpha = dim ? 0.4 : 1;
  context.setLineDash(wrong ? [4, 4] : []);
  context.lineCap = 'round';
  trace(context, path, scale);
  context.strokeStyle = type === 'light' ? ink.glow : ink.ground;
  context.lineWidth = (threads - 1) * gap + 5 * scale + (lifted ? 4 : 0);
  context.stroke();
  context.strokeStyle = ink.thread;
  context.lineWidth = (lifted ? 2 : 1.25) * scale;
  for (let index = 0; index < threads; index++) {
    trace(context, beside(path, (index - (threads - 1) / 2) * gap), scale);
    context.stroke();
  }
  context.setLineDash([]);
  for (const { x, y } of bends) {
    const size = BEND_SIZE * scale;
    context.fillStyle = ink.ground;
    context.fillRect(x - size / 2, y - size / 2, size, size);
    context.strokeRect(x - size / 2, y - size / 2, size, size);
  }
  context.globalAlpha = 1;
}

/** A line with rounded corners. */
function trace(context: CanvasRenderingContext2D, points: readonly Point[], scale: number): void {
  context.beginPath();
  points.forEach((point, index) => {
    const before = points[index - 1];
    const after = points[index + 1];
    if (!before) context.moveTo(point.x, point.y);
    else if (!after) context.lineTo(point.x, point.y);
    else {
      const reach = Math.min(Math.hypot(point.x - before.x, point.y - before.y), Math.hypot(after.x - point.x, after.y - point.y));
      context.arcTo(point.x, point.y, after.x, after.y, Math.min(CORNER * scale, reach / 2));
    }
  });
}

function label(context: CanvasRenderingContext2D, at: Point, text: string, scale: number, ink: RibbonInk): void {
  context.font = `${10.5 * scale}px system-ui, sans-serif`;
  const width = context.measureText(text).width + 8;
  context.fillStyle = ink.ground;
  context.fillRect(at.x - width / 2, at.y - 8 * scale, width, 16 * scale);
  context.fillStyle = ink.text;
  context.textAlign = 'center';
  context.textBaseline = 'middle';
  context.fillText(text, at.x, at.y + 0.5);
}
