import { mat4 } from 'gl-matrix';

/** Size of a picture in pixels. */
export interface PictureSize {
  readonly width: number;
  readonly height: number;
}

/** A part of a picture that is drawn by itself. */
export interface PicturePart {
  /** Pixels of the whole picture. */
  readonly whole: PictureSize;
  /** Of the part in it, pixels from the top left; may lie outside. */
  readonly corner: readonly [x: number, y: number];
}

/** A picture as a part of itself. */
export function wholePart(size: PictureSize): PicturePart {
  return { whole: size, corner: [0, 0] };
}

/** What takes clip space of the whole picture to that of a part of this size: y goes up, the corner is at the top. */
export function cropMatrix({ whole, corner: [x, y] }: PicturePart, { width, height }: PictureSize): mat4 {
  const [wide, high] = [whole.width / width, whole.height / height];
  const right = (whole.width - width - 2 * x) / width;
  const up = (2 * y + height - whole.height) / height;
  // Column by column.
  return mat4.fromValues(wide, 0, 0, 0, 0, high, 0, 0, 0, 0, 1, 0, right, up, 0, 1);
}
