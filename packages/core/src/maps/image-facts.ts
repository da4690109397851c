import type { Pixels } from '../image/mips';
import { imageSeams, type ImageSeams } from './image-seams';
import { normalSense, type NormalSense } from './normal-sense';

/** What is known of an image's pixels. */
export interface ImageFacts {
  /** By channel (red, green, blue, alpha): the one value that all pixels have, 0…1 as stored; nothing where they differ. */
  readonly even: readonly (number | undefined)[];
  /** Red, green and blue are the same everywhere. */
  readonly grey: boolean;
  /** Where it does not continue itself when it is repeated. */
  readonly seams: ImageSeams;
  /** Where it looks like a normal map: which way its green points. */
  readonly normals?: NormalSense;
}

/** Of 255: what a lossy file makes of one value. */
const NEARLY = 2;
const MOST_LOOKED_AT = 65_536;

export function imageFacts(pixels: Pixels): ImageFacts {
  const { data } = pixels;
  const even = [0, 1, 2, 3].map((channel) => evenValue(data, channel));
  const grey = isGrey(data);
  const known = { even, grey, seams: imageSeams(pixels) };
  return looksLikeNormals(pixels) ? { ...known, normals: normalSense(pixels) } : known;
}

/** The one value of a channel, 0…1; most channels have another one after a few pixels already. */
function evenValue(data: Uint8Array, channel: number): number | undefined {
  let [least, most] = [255, 0];
  for (let at = channel; at < data.length; at += 4) {
    const value = data[at] ?? 0;
    if (value < least) least = value;
    if (value > most) most = value;
    if (most - least > NEARLY) return undefined;
  }
  return (least + most) / 510;
}

function isGrey(data: Uint8Array): boolean {
  for (let at = 0; at < data.length; at += 4) {
    const green = data[at + 1] ?? 0;
    if (Math.abs((data[at] ?? 0) - green) > NEARLY * 2 || Math.abs(green - (data[at + 2] ?? 0)) > NEARLY * 2) return false;
  }
  return true;
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
