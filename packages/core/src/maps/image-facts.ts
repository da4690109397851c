import type { Pixels } from '../image/mips';
import { normalSense, type NormalSense } from './normal-sense';

/** What is known of an image's pixels. */
export interface ImageFacts {
  /** By channel (red, green, blue, alpha): the one value that all pixels have, 0…1 as stored; nothing where they differ. */
  readonly even: readonly (number | undefined)[];
  /** Red, green and blue are the same everywhere. */
  readonly grey: boolean;
  /** Where it looks like a normal map: which way its green points. */
  readonly normals?: NormalSense;
}

/** Of 255: what a lossy file makes of one value. */
const NEARLY = 2;
const MOST_LOOKED_AT = 65_536;

export function imageFacts(pixels: Pixels): ImageFacts {
  const { data } = pixels;
  const low = [255, 255, 255, 255];
  const high = [0, 0, 0, 0];
  let grey = true;
  for (let at = 0; at < data.length; at += 4) {
    for (let channel = 0; channel < 4; channel++) {
      const value = data[at + channel] ?? 0;
      if (value < (low[channel] ?? 0)) low[channel] = value;
      if (value > (high[channel] ?? 0)) high[channel] = value;
    }
    if (grey) {
      const [red = 0, green = 0, blue = 0] = [data[at], data[at + 1], data[at + 2]];
      grey = Math.abs(red - green) <= NEARLY * 2 && Math.abs(green - blue) <= NEARLY * 2;
    }
  }
  const even = low.map((least, channel) => {
    const most = high[channel] ?? 0;
    return most - least <= NEARLY ? (least + most) / 510 : undefined;
  });
  return looksLikeNormals(pixels) ? { even, grey, normals: normalSense(pixels) } : { even, grey };
}

/** Nearly all pixels are directions of unit length that point out of the picture. */
function looksLikeNormals({ data }: Pixels): boolean {
  const step = Math.max(1, Math.floor(data.length / 4 / MOST_LOOKED_AT));
  let [looked, fitting] = [0, 0];
  for (let pixel = 0; pixel < data.length / 4; pixel += step) {
    const [x = 0, y = 0, z = 0] = [0, 1, 2].map((channel) => (data[pixel * 4 + channel] ?? 0) / 127.5 - 1);
    looked++;
    if (z > 0.2 && Math.abs(x * x + y * y + z * z - 1) < 0.2) fitting++;
  }
  return looked > 0 && fitting / looked > 0.9;
}
