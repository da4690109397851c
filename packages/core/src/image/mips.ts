import { linearFromSrgb, srgbFromLinear } from './colour-space';

/** 8-bit RGBA rows from the top, alpha not multiplied in. */
export interface Pixels {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8Array<ArrayBuffer>;
}

/** An image with each next level half as large, down to one pixel. */
export interface MipChain {
  readonly width: number;
  readonly height: number;
  readonly levels: readonly Uint8Array<ArrayBuffer>[];
}

/** Six square images of a cube, +x −x +y −y +z −z, each with its levels. */
export interface CubeChain {
  readonly faces: readonly MipChain[];
}

/** @throws RangeError unless there are six squares of one size */
export function cubeChain(faces: readonly MipChain[]): CubeChain {
  const [first] = faces;
  if (faces.length !== 6 || faces.some(({ width, height }) => width !== first?.width || height !== first.width))
    throw new RangeError('A cube image is six squares of one size.');
  return { faces };
}

export function mipLevelCount(width: number, height: number): number {
  return Math.floor(Math.log2(Math.max(width, height, 1))) + 1;
}

const TO_LINEAR = Float32Array.from({ length: 256 }, (_, value) => linearFromSrgb(value / 255));

/**
 * All mip levels by area averages. Colour images are averaged in linear light, each pixel weighted by its alpha, so
 * that invisible pixels do not bleed; data are averaged as they are.
 */
export function mipChain({ width, height, data }: Pixels, role: 'colour' | 'data'): MipChain {
  const levels = [data];
  let at = { width, height, values: decode(data, role) };
  for (let level = 1; level < mipLevelCount(width, height); level++) {
    at = halve(at);
    levels.push(encode(at.values, role));
  }
  return { width, height, levels };
}

interface Floats {
  readonly width: number;
  readonly height: number;
  /** Four a pixel; for colour, red, green and blue times alpha. */
  readonly values: Float32Array;
}

function decode(data: Uint8Array, role: 'colour' | 'data'): Float32Array {
  const values = new Float32Array(data.length);
  for (let at = 0; at < data.length; at += 4) {
    const alpha = (data[at + 3] ?? 0) / 255;
    for (let channel = 0; channel < 3; channel++) {
      const byte = data[at + channel] ?? 0;
      values[at + channel] = role === 'colour' ? (TO_LINEAR[byte] ?? 0) * alpha : byte / 255;
    }
    values[at + 3] = alpha;
  }
  return values;
}

function encode(values: Float32Array, role: 'colour' | 'data'): Uint8Array<ArrayBuffer> {
  const data = new Uint8Array(values.length);
  for (let at = 0; at < values.length; at += 4) {
    const alpha = values[at + 3] ?? 0;
    for (let channel = 0; channel < 3; channel++) {
      const value = values[at + channel] ?? 0;
      const shown = role === 'data' ? value : alpha > 0 ? srgbFromLinear(value / alpha) : 0;
      data[at + channel] = Math.round(Math.min(Math.max(shown, 0), 1) * 255);
    }
    data[at + 3] = Math.round(alpha * 255);
  }
  return data;
}

/** Half the size, rounded down; where a side is odd, pixels between two count to both by their share. */
function halve({ width, height, values }: Floats): Floats {
  const across = shares(width);
  const down = shares(height);
  const result = new Float32Array(across.length * down.length * 4);
  down.forEach((rows, y) => {
    across.forEach((columns, x) => {
      const to = (y * across.length + x) * 4;
      for (const [row, rowShare] of rows) {
        for (const [column, columnShare] of columns) {
          const from = (row * width + column) * 4;
          const share = rowShare * columnShare;
          for (let channel = 0; channel < 4; channel++) {
            result[to + channel] = (result[to + channel] ?? 0) + (values[from + channel] ?? 0) * share;
          }
        }
      }
    });
  });
  return { width: across.length, height: down.length, values: result };
}

/** For every pixel of the smaller side, the pixels of the larger one under it, with shares that sum to 1. */
function shares(size: number): readonly (readonly (readonly [number, number])[])[] {
  const half = Math.max(1, size >> 1);
  const step = size / half;
  return Array.from({ length: half }, (_, index) => {
    const [start, end] = [index * step, (index + 1) * step];
    const covered: [number, number][] = [];
    for (let at = Math.floor(start); at < Math.min(Math.ceil(end - 1e-9), size); at++) {
      covered.push([at, (Math.min(end, at + 1) - Math.max(start, at)) / step]);
    }
    return covered;
  });
}
