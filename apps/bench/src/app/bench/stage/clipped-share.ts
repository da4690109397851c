import type { LightRig } from '@brelvin/contract';
import type { FrameRenderer, PictureSize } from '@brelvin/core';

/** Small: every pixel stands for what is round it. */
const SIZE: PictureSize = { width: 80, height: 60 };
/** White itself, and what rounding makes of it, is not too bright. */
const WHITE = 1.02;

/** The part of the picture drawn last that is brighter than white at its exposure, before any tone curve, in whole hundredths: 0…1. */
export async function clippedShare(renderer: Pick<FrameRenderer, 'measureLast'>, rig: LightRig): Promise<number> {
  const pixels = await renderer.measureLast(SIZE, rig);
  let clipped = 0;
  for (let at = 0; at < pixels.length; at += 4) if (Math.max(pixels[at] ?? 0, pixels[at + 1] ?? 0, pixels[at + 2] ?? 0) > WHITE) clipped++;
  return Math.round((clipped * 400) / Math.max(pixels.length, 4)) / 100;
}
