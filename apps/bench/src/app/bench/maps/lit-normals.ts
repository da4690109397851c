import type { MipChain } from '@brelvin/core';

/** Towards a lamp above and to the left of the picture. */
const TO_LIGHT = [-0.45, 0.65, 0.61] as const;

/** Pixels with their size. */
export interface SmallPicture {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8ClampedArray<ArrayBuffer>;
}

/** The largest level of an image that fits into a square. */
export function fittingLevel({ width, height, levels }: MipChain, side: number): SmallPicture & { readonly stored: Uint8Array } {
  let level = 0;
  while (Math.max(width, height) >> level > side && level < levels.length - 1) level++;
  const stored = levels[level] ?? new Uint8Array(4);
  return { width: Math.max(1, width >> level), height: Math.max(1, height >> level), data: new Uint8ClampedArray(stored), stored };
}

/** A normal map as a grey plate lit from above and from the left, with its green read up or down. */
export function litNormals(chain: MipChain, side: number, greenDown: boolean): SmallPicture {
  const { width, height, stored } = fittingLevel(chain, side);
  const data = new Uint8ClampedArray(stored.length);
  for (let at = 0; at < stored.length; at += 4) {
    const [x = 0, y = 0, z = 0] = [0, 1, 2].map((channel) => (stored[at + channel] ?? 0) / 127.5 - 1);
    const length = Math.hypot(x, y, z) || 1;
    const facing = (x * TO_LIGHT[0] + (greenDown ? -y : y) * TO_LIGHT[1] + z * TO_LIGHT[2]) / length;
    // As a matte grey looks on a screen: 2.2 is near enough to sRGB for a hint.
    const shade = 235 * Math.pow(0.1 + 0.75 * Math.max(facing, 0), 1 / 2.2);
    data.set([shade, shade, shade, 255], at);
  }
  return { width, height, data };
}
