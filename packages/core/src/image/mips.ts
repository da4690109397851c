import { linearFromSrgb, srgbFromLinear } from './colour-space';

/** 8-bit RGBA rows from the top, alpha not multiplied in. */
export interface Pixels {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8Array<ArrayBuffer>;
}

/** An image with each next level half as large, down to one pixel; or only the largest, whose mips a device makes. */
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

const isPowerOfTwo = (side: number): boolean => (side & (side - 1)) === 0;

/**
 * Whether a device makes the mips of an image as `mipChain` does, by means of two by two: no side is odd on the way down,
 * and no alpha weighs.
 */
export function leavesMipsToDevice({ width, height }: Pick<Pixels, 'width' | 'height'>, role: 'colour' | 'data', opaque: boolean): boolean {
  return (role === 'data' || opaque) && isPowerOfTwo(width) && isPowerOfTwo(height);
}

const TO_LINEAR = Float32Array.from({ length: 256 }, (_, value) => linearFromSrgb(value / 255));

/** From which linear value on a byte is the next one: byte `n` stands for everything below `STEPS[n]`. */
const STEPS = Float64Array.from({ length: 256 }, (_, byte) => (byte < 255 ? linearFromSrgb((byte + 0.5) / 255) : Infinity));
const GUESSES = 4096;
/** A byte not above the right one, for every part of 0…1. */
const GUESS = Uint8Array.from({ length: GUESSES + 1 }, (_, part) => Math.floor(srgbFromLinear(part / GUESSES) * 255));

/**
 * All mip levels by area averages. Colour images are averaged in linear light, each pixel weighted by its alpha, so
 * that invisible pixels do not bleed; data are averaged as they are.
 */
export function mipChain({ width, height, data }: Pixels, role: 'colour' | 'data'): MipChain {
  const levels = [data];
  // The largest level is decoded row by row: as numbers it would take four times its memory.
  const line = new Float32Array(width * 4);
  let at: Rows = { width, height, row: (y) => decode(data, y * width * 4, role, line) };
  for (let level = 1; level < mipLevelCount(width, height); level++) {
    at = halve(at);
    levels.push(encode(at, role));
  }
  return { width, height, levels };
}

/** Rows of four numbers a pixel; for colour, red, green and blue times alpha. A row may be gone when the next is asked for. */
interface Rows {
  readonly width: number;
  readonly height: number;
  readonly row: (y: number) => Float32Array;
}

const UNIT = Float64Array.from({ length: 256 }, (_, byte) => byte / 255);

function decode(data: Uint8Array, from: number, role: 'colour' | 'data', line: Float32Array): Float32Array {
  const curve = role === 'colour' ? TO_LINEAR : UNIT;
  for (let at = 0; at < line.length; at += 4) {
    const alpha = UNIT[data[from + at + 3] ?? 0] ?? 0;
    const weight = role === 'colour' ? alpha : 1;
    line[at] = (curve[data[from + at] ?? 0] ?? 0) * weight;
    line[at + 1] = (curve[data[from + at + 1] ?? 0] ?? 0) * weight;
    line[at + 2] = (curve[data[from + at + 2] ?? 0] ?? 0) * weight;
    line[at + 3] = alpha;
  }
  return line;
}

function encode({ width, height, row }: Rows, role: 'colour' | 'data'): Uint8Array<ArrayBuffer> {
  const data = new Uint8Array(width * height * 4);
  for (let y = 0, to = 0; y < height; y++) {
    const values = row(y);
    for (let at = 0; at < values.length; at += 4, to += 4) {
      const alpha = values[at + 3] ?? 0;
      for (let channel = 0; channel < 3; channel++) {
        const value = values[at + channel] ?? 0;
        if (role === 'data') data[to + channel] = Math.round(value * 255);
        else data[to + channel] = alpha > 0 ? byteOf(value / alpha) : 0;
      }
      data[to + 3] = Math.round(alpha * 255);
    }
  }
  return data;
}

/** The sRGB byte of a linear value, as rounding the curve would give it. */
function byteOf(linear: number): number {
  let byte = GUESS[Math.min(Math.floor(linear * GUESSES), GUESSES)] ?? 0;
  while (linear >= (STEPS[byte] ?? Infinity)) byte++;
  return byte;
}

/** Half the size, rounded down; where a side is odd, pixels between two count to both by their share. */
function halve(rows: Rows): Rows {
  const { width, height, row } = rows;
  if (width % 2 === 0 && height % 2 === 0) return halveEven(rows);
  const [across, down] = [taps(width), taps(height)];
  const values = new Float32Array(across.size * down.size * 4);
  const sum = new Float32Array(width * 4);
  for (let y = 0, to = 0; y < down.size; y++) {
    sum.fill(0);
    for (let tap = y * down.each; tap < (y + 1) * down.each; tap++) {
      const share = down.shares[tap] ?? 0;
      const line = row(down.pixels[tap] ?? 0);
      for (let at = 0; at < line.length; at++) sum[at] = (sum[at] ?? 0) + (line[at] ?? 0) * share;
    }
    for (let x = 0; x < across.size; x++, to += 4) {
      for (let tap = x * across.each; tap < (x + 1) * across.each; tap++) {
        const [share, from] = [across.shares[tap] ?? 0, (across.pixels[tap] ?? 0) * 4];
        for (let channel = 0; channel < 4; channel++)
          values[to + channel] = (values[to + channel] ?? 0) + (sum[from + channel] ?? 0) * share;
      }
    }
  }
  const stride = across.size * 4;
  return { width: across.size, height: down.size, row: (y) => values.subarray(y * stride, (y + 1) * stride) };
}

/** The means of two by two. */
function halveEven({ width, height, row }: Rows): Rows {
  const stride = width * 2;
  const values = new Float32Array((stride * height) / 2);
  for (let y = 0; y < height; y++) {
    const line = row(y);
    const start = (y >> 1) * stride;
    for (let at = 0; at < stride; at++) {
      const from = ((at >> 2) << 3) + (at & 3);
      values[start + at] = (values[start + at] ?? 0) + ((line[from] ?? 0) + (line[from + 4] ?? 0)) * 0.25;
    }
  }
  return { width: width / 2, height: height / 2, row: (y) => values.subarray(y * stride, (y + 1) * stride) };
}

/** For every pixel of the smaller side, `each` pixels of the larger one under it, with shares that sum to 1. */
interface Taps {
  readonly size: number;
  readonly each: number;
  readonly pixels: Uint32Array;
  readonly shares: Float32Array;
}

function taps(side: number): Taps {
  const size = Math.max(1, side >> 1);
  const step = side / size;
  const each = Math.ceil(step);
  const [pixels, shares] = [new Uint32Array(size * each), new Float32Array(size * each)];
  for (let index = 0; index < size; index++) {
    const [start, end] = [index * step, (index + 1) * step];
    for (let tap = 0; tap < each; tap++) {
      const pixel = Math.floor(start) + tap;
      pixels[index * each + tap] = Math.min(pixel, side - 1);
      shares[index * each + tap] = Math.max(0, Math.min(end, pixel + 1) - Math.max(start, pixel)) / step;
    }
  }
  return { size, each, pixels, shares };
}
