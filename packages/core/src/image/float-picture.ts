/** Scene-linear Rec. 709 without an upper end: three floats a pixel, rows from the top. */
export interface FloatPicture {
  readonly width: number;
  readonly height: number;
  readonly data: Float32Array<ArrayBuffer>;
}

/** The longest side of a high-range picture that is read, pixels. What is above `LARGEST_PANORAMA` is made smaller on the way. */
export const LONGEST_FLOAT_SIDE = 32_768;

/** A file cannot be read; the message is for the user. */
export class PictureRefused extends Error {}

/**
 * Takes rows as they are decoded and keeps the mean of squares of them, so that a picture far larger than what is kept is
 * never whole in memory.
 */
export class RowReducer {
  readonly step: number;
  private readonly picture: FloatPicture;
  private readonly counts: Float32Array;

  /** @param widest pixels across that are kept at most */
  constructor(
    private readonly width: number,
    private readonly height: number,
    widest: number,
  ) {
    this.step = Math.max(1, Math.ceil(width / widest));
    const small = { width: Math.ceil(width / this.step), height: Math.ceil(height / this.step) };
    this.picture = { ...small, data: new Float32Array(small.width * small.height * 3) };
    this.counts = new Float32Array(small.width * small.height);
  }

  /** @param row from the top; three floats a pixel */
  put(row: number, values: Float32Array): void {
    const { step, picture, counts, width } = this;
    const start = Math.floor(row / step) * picture.width;
    for (let x = 0; x < width; x++) {
      const at = start + Math.floor(x / step);
      counts[at] = (counts[at] ?? 0) + 1;
      for (let channel = 0; channel < 3; channel++)
        picture.data[at * 3 + channel] = (picture.data[at * 3 + channel] ?? 0) + (values[x * 3 + channel] ?? 0);
    }
  }

  finish(): FloatPicture {
    const { data } = this.picture;
    if (this.step > 1)
      for (let index = 0; index < data.length; index++)
        data[index] = (data[index] ?? 0) / Math.max(1, this.counts[Math.floor(index / 3)] ?? 1);
    return this.picture;
  }

  /** What was done, in words; nothing where the picture is as it was. */
  get words(): string | undefined {
    const { width, height } = this.picture;
    return this.step > 1 ? `Made smaller, from ${this.width} × ${this.height} to ${width} × ${height} pixels.` : undefined;
  }
}
