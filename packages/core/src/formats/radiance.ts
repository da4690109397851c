import { LONGEST_FLOAT_SIDE, PictureRefused, RowReducer, type FloatPicture } from '../image/float-picture';

/**
 * Radiance pictures (.hdr): a head of text lines, then four bytes a pixel: three mantissas and their exponent.
 * Ward 1991, "Real pixels", Graphics Gems II, section II.5; the run lengths as in Ward's "Radiance file formats", 1996.
 */
export interface RadianceHead {
  readonly width: number;
  readonly height: number;
  /** What all values are to be divided by. */
  readonly exposure: number;
  /** Rows go from the bottom up. */
  readonly upwards: boolean;
  /** Columns go from the right to the left. */
  readonly leftwards: boolean;
  /** Where the pixels begin, bytes. */
  readonly start: number;
}

const LONGEST_HEAD = 64 * 1024;

export function isRadiance(bytes: Uint8Array): boolean {
  return bytes[0] === 0x23 && bytes[1] === 0x3f;
}

/** @throws PictureRefused */
export function radianceHead(bytes: Uint8Array): RadianceHead {
  if (!isRadiance(bytes)) throw new PictureRefused('It is no Radiance picture: it does not begin with “#?”.');
  let at = 0;
  const line = (): string | undefined => {
    const end = bytes.indexOf(0x0a, at);
    if (end < 0 || end > LONGEST_HEAD) return undefined;
    const text = String.fromCharCode(...bytes.subarray(at, end));
    at = end + 1;
    return text.replace(/\r$/, '');
  };
  let exposure = 1;
  for (let text = line(); text !== ''; text = line()) {
    if (text === undefined) throw new PictureRefused('Its head is cut off: no empty line ends it.');
    const [, name = '', value = ''] = /^([A-Z]+)\s*=\s*(.*)$/.exec(text) ?? [];
    if (name === 'FORMAT' && value.trim() === '32-bit_rle_xyze')
      throw new PictureRefused(
        'Its colours are CIE XYZ (32-bit_rle_xyze), which is not read: without its white point they have no certain RGB. Save it as RGBE.',
      );
    if (name === 'FORMAT' && value.trim() !== '32-bit_rle_rgbe')
      throw new PictureRefused(`Its format is “${value.trim().slice(0, 40)}”; 32-bit_rle_rgbe is read.`);
    if (name === 'EXPOSURE' && Number(value) > 0) exposure *= Number(value);
  }
  const size = line() ?? '';
  const [, ySign, high, xSign, wide] = /^([-+])Y\s+(\d+)\s+([-+])X\s+(\d+)\s*$/.exec(size) ?? [];
  if (!high || !wide) {
    const turned = /^[-+]X/.test(size);
    throw new PictureRefused(
      turned ? 'Its rows run up and down (X before Y). Turn it upright and save it again.' : 'Its head does not say how large it is.',
    );
  }
  const [width, height] = [Number(wide), Number(high)];
  if (width < 1 || height < 1 || width > LONGEST_FLOAT_SIDE || height > LONGEST_FLOAT_SIDE)
    throw new PictureRefused(`It claims ${width} × ${height} pixels; at most ${LONGEST_FLOAT_SIDE} on a side are read.`);
  return { width, height, exposure, upwards: ySign === '+', leftwards: xSign === '-', start: at };
}

/**
 * Reads a picture, made smaller where it is wider than `widest`.
 *
 * @param onRows told now and then which part of the rows is read, 0…1
 * @throws PictureRefused
 */
export function readRadiance(
  bytes: Uint8Array,
  widest: number,
  onRows: (share: number) => void = () => undefined,
): { readonly picture: FloatPicture; readonly words?: string } {
  const { width, height, exposure, upwards, leftwards, start } = radianceHead(bytes);
  const reducer = new RowReducer(width, height, widest);
  const reader = new RowReader(bytes, start, width, height);
  const values = new Float32Array(width * 3);
  for (let row = 0; row < height; row++) {
    const rgbe = reader.next(row);
    for (let x = 0; x < width; x++) {
      const exponent = rgbe[x * 4 + 3] ?? 0;
      // The middle of what a mantissa stands for, so that nothing gets darker by being stored.
      const scale = exponent === 0 ? 0 : (SCALES[exponent] ?? 0) / exposure;
      const to = (leftwards ? width - 1 - x : x) * 3;
      for (let channel = 0; channel < 3; channel++) values[to + channel] = ((rgbe[x * 4 + channel] ?? 0) + 0.5) * scale;
    }
    reducer.put(upwards ? height - 1 - row : row, values);
    if (row % 64 === 0) onRows(row / height);
  }
  return { picture: reducer.finish(), words: reducer.words };
}

const SCALES = Float64Array.from({ length: 256 }, (_, exponent) => 2 ** (exponent - 136));

/** Four bytes a pixel, row by row, in whichever of the three ways they are packed. */
class RowReader {
  private readonly row: Uint8Array;

  constructor(
    private readonly bytes: Uint8Array,
    private at: number,
    private readonly width: number,
    private readonly height: number,
  ) {
    this.row = new Uint8Array(width * 4);
  }

  next(row: number): Uint8Array {
    const { bytes, at, width } = this;
    const ownRuns = width >= 8 && width < 0x8000 && bytes[at] === 2 && bytes[at + 1] === 2 && (bytes[at + 2] ?? 255) < 128;
    if (ownRuns) this.byComponents(row);
    else this.byPixels(row);
    return this.row;
  }

  private cutOff(row: number): PictureRefused {
    return new PictureRefused(`It is cut off or damaged at row ${row + 1} of ${this.height}.`);
  }

  /** Each component of a row by itself, in runs and in plain stretches. */
  private byComponents(row: number): void {
    const { bytes, width } = this;
    const said = ((bytes[this.at + 2] ?? 0) << 8) | (bytes[this.at + 3] ?? 0);
    if (said !== width) throw new PictureRefused(`Row ${row + 1} says it has ${said} pixels, the head says ${width}.`);
    this.at += 4;
    for (let component = 0; component < 4; component++) {
      for (let x = 0; x < width;) {
        const code = bytes[this.at++];
        if (code === undefined) throw this.cutOff(row);
        const count = code > 128 ? code - 128 : code;
        if (count === 0 || x + count > width) throw this.cutOff(row);
        if (code > 128) {
          const value = bytes[this.at++];
          if (value === undefined) throw this.cutOff(row);
          for (let each = 0; each < count; each++) this.row[(x + each) * 4 + component] = value;
        } else {
          if (this.at + count > bytes.length) throw this.cutOff(row);
          for (let each = 0; each < count; each++) this.row[(x + each) * 4 + component] = bytes[this.at++] ?? 0;
        }
        x += count;
      }
    }
  }

  /** Whole pixels; three ones repeat the last, more of them in a row by a higher power. */
  private byPixels(row: number): void {
    const { bytes, width } = this;
    let shift = 0;
    for (let x = 0; x < width;) {
      if (this.at + 4 > bytes.length) throw this.cutOff(row);
      const pixel = bytes.subarray(this.at, this.at + 4);
      this.at += 4;
      if (pixel[0] === 1 && pixel[1] === 1 && pixel[2] === 1) {
        const count = (pixel[3] ?? 0) * 2 ** shift;
        if (x === 0 || x + count > width) throw this.cutOff(row);
        const last = this.row.slice((x - 1) * 4, x * 4);
        for (let each = 0; each < count; each++) this.row.set(last, (x + each) * 4);
        x += count;
        shift += 8;
        continue;
      }
      shift = 0;
      this.row.set(pixel, x * 4);
      x++;
    }
  }
}

/** Writes a picture, its rows packed by components. Values are held between 0 and what the format can say. */
export function writeRadiance({ width, height, data }: FloatPicture): Uint8Array<ArrayBuffer> {
  const head = [...`#?RADIANCE\nFORMAT=32-bit_rle_rgbe\n\n-Y ${height} +X ${width}\n`].map((letter) => letter.charCodeAt(0));
  const packed: number[] = [];
  const row = new Uint8Array(width * 4);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) row.set(rgbeOf(data, (y * width + x) * 3), x * 4);
    if (width < 8 || width >= 0x8000) packed.push(...row);
    else {
      packed.push(2, 2, width >> 8, width & 255);
      for (let component = 0; component < 4; component++) packRow(row, component, width, packed);
    }
  }
  const bytes = new Uint8Array(head.length + packed.length);
  bytes.set(head);
  bytes.set(packed, head.length);
  return bytes;
}

function rgbeOf(data: Float32Array, at: number): [number, number, number, number] {
  const [red = 0, green = 0, blue = 0] = data.subarray(at, at + 3);
  const peak = Math.max(red, green, blue);
  if (!(peak > 1e-32)) return [0, 0, 0, 0];
  const exponent = Math.min(Math.floor(Math.log2(peak)) + 1, 127);
  const scale = 256 / 2 ** exponent;
  const part = (value: number): number => Math.min(Math.max(Math.floor(value * scale), 0), 255);
  return [part(red), part(green), part(blue), exponent + 128];
}

const SHORTEST_RUN = 4;
const MOST_AT_ONCE = 127;

function packRow(row: Uint8Array, component: number, width: number, packed: number[]): void {
  const at = (x: number): number => row[x * 4 + component] ?? 0;
  const runFrom = (x: number): number => {
    let end = x + 1;
    while (end < width && end - x < MOST_AT_ONCE && at(end) === at(x)) end++;
    return end - x;
  };
  for (let x = 0; x < width;) {
    const run = runFrom(x);
    if (run >= SHORTEST_RUN) {
      packed.push(128 + run, at(x));
      x += run;
      continue;
    }
    let end = x + run;
    while (end < width && end - x < MOST_AT_ONCE && runFrom(end) < SHORTEST_RUN) end++;
    packed.push(end - x);
    for (let each = x; each < end; each++) packed.push(at(each));
    x = end;
  }
}
