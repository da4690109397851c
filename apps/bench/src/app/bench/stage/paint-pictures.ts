import type { Device, FrameRenderer, Picture, PictureSize } from '@brelvin/core';
import { clippedShare } from './clipped-share';
import type { SecondPicture } from './second-picture';

/** Of every picture, so that a program is made ready once. */
export const SAMPLES = 4;

/** Where pictures are drawn, and how large. */
export interface Painting {
  readonly device: Device;
  readonly renderer: FrameRenderer;
  readonly canvas: HTMLCanvasElement;
  readonly second: SecondPicture;
  readonly size: PictureSize;
  readonly cssSize: PictureSize;
  /** Width of what is drawn, by that of what is shown. */
  readonly scale: number;
  /** Whether it is to be told how much of the first picture is too bright to be shown. */
  readonly measures: boolean;
}

export interface Painted {
  /** Milliseconds that each picture took. */
  readonly costs: readonly number[];
  /** The part of the first that is too bright to be shown, 0…1, where it was measured. */
  readonly clipped?: number;
}

/** Draws one picture onto the canvas, or two into one. */
export async function paintPictures(
  pictures: readonly Picture[],
  { device, renderer, canvas, second, size, cssSize, scale, measures }: Painting,
): Promise<Painted> {
  const pair = pictures.length > 1 ? second.ready?.pair : undefined;
  const [whole, css] = pair ? [second.sizeOf(size), second.sizeOf(cssSize)] : [size, cssSize];
  const targets = pair?.targets(whole) ?? [];
  const drawn = { width: Math.max(2, Math.round(whole.width * scale)), height: Math.max(2, Math.round(whole.height * scale)) };
  const costs: number[] = [];
  let clipped: number | undefined;
  // A canvas that changes its size is empty: only what is drawn onto it at once may follow.
  const fitCanvas = (): void => {
    if (canvas.width !== size.width || canvas.height !== size.height) Object.assign(canvas, size);
  };
  if (!pair) fitCanvas();
  for (const [index, picture] of pictures.entries()) {
    const started = performance.now();
    renderer.draw(picture, { size: drawn, samples: SAMPLES, target: targets[index] ?? 'canvas', targetSize: whole, cssSize: css });
    // Asked for at once: while the device is waited for, something else may be drawn.
    const share = measures && index === 0 ? clippedShare(renderer, picture.rig) : undefined;
    await device.finished();
    costs.push(performance.now() - started);
    clipped ??= await share;
  }
  if (pair) {
    fitCanvas();
    pair.show(second.view, 'canvas', size);
    await device.finished();
  }
  return { costs, clipped };
}
