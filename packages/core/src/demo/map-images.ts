import { srgbFromLinear } from '../image/colour-space';
import type { Pixels } from '../image/mips';

/** Numbers over a square, rows from the top. */
export interface Field {
  readonly side: number;
  readonly values: Float32Array;
}

export function field(side: number, at: (u: number, v: number) => number): Field {
  const values = new Float32Array(side * side);
  for (let y = 0; y < side; y++) for (let x = 0; x < side; x++) values[y * side + x] = at((x + 0.5) / side, (y + 0.5) / side);
  return { side, values };
}

/** An image of scene-linear colours, encoded as sRGB. */
export function colourImage(side: number, at: (index: number, u: number, v: number) => readonly number[]): Pixels {
  return image(side, (index, u, v) => at(index, u, v).map((each) => srgbFromLinear(Math.min(Math.max(each, 0), 1))));
}

/** An image of numbers, stored as they are. */
export function dataImage(side: number, at: (index: number) => readonly number[]): Pixels {
  return image(side, at);
}

export const grey = (value: number): readonly number[] => [value, value, value];

function image(side: number, at: (index: number, u: number, v: number) => readonly number[]): Pixels {
  const data = new Uint8Array(side * side * 4).fill(255);
  for (let index = 0; index < side * side; index++) {
    const values = at(index, ((index % side) + 0.5) / side, (Math.floor(index / side) + 0.5) / side);
    for (let channel = 0; channel < 3; channel++)
      data[index * 4 + channel] = Math.round(Math.min(Math.max(values[channel] ?? 0, 0), 1) * 255);
  }
  return { width: side, height: side, data };
}

/** Of a field that continues on its left and right, but ends above and below. */
function neighbour({ side, values }: Field, x: number, y: number): number {
  return values[Math.min(Math.max(y, 0), side - 1) * side + ((x + side) % side)] ?? 0;
}

/**
 * A normal map of heights, green up: 2 x − 1 is the normal (glTF 2.0, section 3.9.3).
 *
 * @param depth from 0 to 1 of the height, in metres
 * @param size of the image on the surface, metres across and down
 */
export function normalsOf(heights: Field, depth: number, size: readonly [number, number]): Pixels {
  const { side } = heights;
  const slopes = size.map((metres) => (depth * side) / (2 * metres));
  return image(side, (index) => {
    const [x, y] = [index % side, Math.floor(index / side)];
    const right = (neighbour(heights, x + 1, y) - neighbour(heights, x - 1, y)) * (slopes[0] ?? 0);
    const up = (neighbour(heights, x, y - 1) - neighbour(heights, x, y + 1)) * (slopes[1] ?? 0);
    const length = Math.hypot(right, up, 1);
    return [-right, -up, 1].map((each) => (each / length) * 0.5 + 0.5);
  });
}

/** How open each point lies: 1, less where what is round it is higher, by blurs of growing width. */
export function opennessOf(heights: Field, strength: number): Field {
  const { side } = heights;
  const open = new Float32Array(side * side).fill(1);
  let blurred = heights;
  for (const radius of [side / 256, side / 96, side / 40]) {
    blurred = boxBlur(boxBlur(blurred, Math.round(radius)), Math.round(radius));
    for (let at = 0; at < open.length; at++) {
      const deeper = Math.max((blurred.values[at] ?? 0) - (heights.values[at] ?? 0), 0);
      open[at] = (open[at] ?? 1) / (1 + deeper * strength);
    }
  }
  return { side, values: open };
}

function boxBlur(from: Field, radius: number): Field {
  const { side } = from;
  const pass = (source: Field, step: (x: number, y: number, by: number) => number): Field => {
    const values = new Float32Array(side * side);
    for (let line = 0; line < side; line++) {
      let sum = 0;
      for (let by = -radius; by <= radius; by++) sum += step(0, line, by);
      for (let at = 0; at < side; at++) {
        values[source === from ? line * side + at : at * side + line] = sum / (2 * radius + 1);
        sum += step(at, line, radius + 1) - step(at, line, -radius);
      }
    }
    return { side, values };
  };
  const across = pass(from, (at, line, by) => neighbour(from, at + by, line));
  return pass(across, (at, line, by) => neighbour(across, line, at + by));
}
