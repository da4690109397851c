import type { MaterialImage } from '@brelvin/contract';
import type { Pixels } from '../image/mips';

/** Whether opposite edges of an image do not continue each other: repeated, a line shows where they meet. */
export interface ImageSeams {
  /** Its left and its right. */
  readonly across: boolean;
  /** Its top and its bottom. */
  readonly down: boolean;
}

export const NO_SEAMS: ImageSeams = { across: false, down: false };

const MOST_LINES = 256;
/** The step over the edge has to be so much larger than the largest inside, and that by so much of 255. */
const [LARGER, AT_LEAST] = [1.25, 2];

/**
 * Compares the step from the last line to the first with the steps between neighbours inside: in an image that is made to
 * repeat, such as a weave or a checkerboard, it is one of many; in a photograph it is by far the largest.
 */
export function imageSeams({ width, height, data }: Pixels): ImageSeams {
  return {
    across: breaksOff(data, { count: width, stride: 4 }, { count: height, stride: width * 4 }),
    down: breaksOff(data, { count: height, stride: width * 4 }, { count: width, stride: 4 }),
  };
}

/**
 * How an image is read beyond its edges where nobody said: repeated, and held where that would show a seam. The maps of
 * a set are read alike, as most of them want it.
 */
export function wrapsOf(...maps: readonly (ImageSeams | undefined)[]): Pick<MaterialImage, 'wrapX' | 'wrapY'> {
  const wrap = (side: keyof ImageSeams): 'clamp' | 'repeat' =>
    maps.filter((seams) => seams?.[side]).length * 2 > maps.length ? 'clamp' : 'repeat';
  return { wrapX: wrap('across'), wrapY: wrap('down') };
}

/** Pixels in a row: how many, and bytes from one to the next. */
interface Line {
  readonly count: number;
  readonly stride: number;
}

function breaksOff(data: Uint8Array, along: Line, beside: Line): boolean {
  const every = Math.max(1, Math.floor(beside.count / MOST_LINES));
  /** Mean difference of two places along, 0…255. */
  const step = (from: number, to: number): number => {
    let [sum, values] = [0, 0];
    for (let line = 0; line < beside.count; line += every) {
      const start = line * beside.stride;
      for (let channel = 0; channel < 4; channel++)
        sum += Math.abs((data[start + from * along.stride + channel] ?? 0) - (data[start + to * along.stride + channel] ?? 0));
      values += 4;
    }
    return sum / values;
  };
  let largest = 0;
  for (let at = 1; at < along.count; at++) largest = Math.max(largest, step(at - 1, at));
  return step(along.count - 1, 0) > LARGER * largest + AT_LEAST;
}
