import { PNG } from 'pngjs';

export type Rgb = readonly [number, number, number];

/** A picture of the Stage, 8-bit sRGB; places and sizes in CSS pixels. */
export class StagePixels {
  private readonly png: PNG;

  /** @param ratio device pixels for each CSS pixel */
  constructor(
    bytes: Buffer,
    private readonly ratio: number,
  ) {
    this.png = PNG.sync.read(bytes);
  }

  get width(): number {
    return Math.floor(this.png.width / this.ratio);
  }

  get height(): number {
    return Math.floor(this.png.height / this.ratio);
  }

  at(x: number, y: number): Rgb {
    const [column, row] = [Math.floor(Math.round(x) * this.ratio), Math.floor(Math.round(y) * this.ratio)];
    const index = (row * this.png.width + column) * 4;
    return [this.png.data[index] ?? 0, this.png.data[index + 1] ?? 0, this.png.data[index + 2] ?? 0];
  }

  brightness(x: number, y: number): number {
    const [red, green, blue] = this.at(x, y);
    return 0.2126 * red + 0.7152 * green + 0.0722 * blue;
  }

  /** Stretches of at least `shortest` pixels of one colour along the middle row, from left to right. */
  plateaus(shortest = 7): { readonly colour: Rgb; readonly from: number; readonly to: number }[] {
    const y = this.height / 2;
    const found: { colour: Rgb; from: number; to: number }[] = [];
    let start = 0;
    for (let x = 1; x <= this.width; x++) {
      const same = x < this.width && difference(this.at(x, y), this.at(start, y)) <= 3;
      if (same) continue;
      if (x - start >= shortest) found.push({ colour: this.at(start, y), from: start, to: x - 1 });
      start = x;
    }
    return found;
  }

  /** How many flat colours lie between the backgrounds at both ends of the middle row. */
  bandCount(): number {
    const colours: Rgb[] = [];
    for (const { colour } of this.plateaus().slice(1, -1)) {
      if (!colours.some((known) => difference(known, colour) <= 4)) colours.push(colour);
    }
    return colours.length;
  }

  /** The share of pixels that are as is asked for. */
  share(fits: (colour: Rgb) => boolean): number {
    let fitting = 0;
    for (let y = 0; y < this.height; y++) for (let x = 0; x < this.width; x++) if (fits(this.at(x, y))) fitting++;
    return fitting / (this.width * this.height);
  }

  /** The share of pixels that differ visibly from another picture of the same size. */
  changedShare(other: StagePixels): number {
    let changed = 0;
    for (let y = 0; y < this.height; y++) {
      for (let x = 0; x < this.width; x++) if (difference(this.at(x, y), other.at(x, y)) > 8) changed++;
    }
    return changed / (this.width * this.height);
  }
}

export function difference(a: Rgb, b: Rgb): number {
  return Math.max(...a.map((each, index) => Math.abs(each - (b[index] ?? 0))));
}
