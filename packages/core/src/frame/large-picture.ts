import type { Device } from '../device/device';
import { drawnPixels } from './drawn-pixels';
import type { FrameRenderer } from './frame-renderer';
import type { Picture } from './picture';
import type { PictureSize } from './picture-part';

/** The longer side of a picture that is drawn at once; larger ones are drawn in tiles. Pixels. */
export const LARGEST_AT_ONCE = 2048;
/** The longer side of the largest picture. Pixels. */
export const LARGEST_PICTURE = 8192;

const TILE = 1024;
/** What is found round a pixel (bright edges, lines) must be drawn round a tile, too. */
const LEAST_MARGIN = 24;

/** A rectangle of a picture: 8-bit sRGB RGBA rows from the top. */
export interface PictureTile extends PictureSize {
  readonly x: number;
  readonly y: number;
  readonly pixels: Uint8Array<ArrayBuffer>;
}

export interface LargePictureSizes {
  readonly size: PictureSize;
  /** For widths that are given in CSS pixels. */
  readonly cssSize: PictureSize;
  /** The longer side that is drawn at once, pixels. */
  readonly atOnce?: number;
  /** The side of a tile, pixels. */
  readonly tile?: number;
}

/** How a large picture comes. */
export interface TileReceiver {
  readonly put: (tile: PictureTile) => void;
  /** @returns whether the rest is still wanted */
  readonly goesOn: (done: number, of: number) => boolean;
}

/**
 * A picture of any size, antialiased and with the background's opacity, tile by tile. Light that spreads, near occlusion and
 * what is seen through glass are found once for the whole picture, at `LARGEST_AT_ONCE`.
 *
 * @returns whether it was drawn to its end
 */
export async function drawLargePicture(
  device: Device,
  renderer: FrameRenderer,
  picture: Picture,
  { size, cssSize, atOnce = LARGEST_AT_ONCE, tile: inner = TILE }: LargePictureSizes,
  { put, goesOn }: TileReceiver,
): Promise<boolean> {
  if (Math.max(size.width, size.height) <= atOnce) {
    if (!goesOn(0, 1)) return false;
    put({ x: 0, y: 0, ...size, pixels: await drawnPixels(device, renderer, picture, size, cssSize) });
    return goesOn(1, 1);
  }
  const shrink = atOnce / Math.max(size.width, size.height);
  const small = { width: Math.max(1, Math.round(size.width * shrink)), height: Math.max(1, Math.round(size.height * shrink)) };
  const margin = LEAST_MARGIN + widestLine(picture, size, cssSize);
  const side = inner + 2 * margin;
  const overview = renderer.overview(picture, small, cssSize);
  const target = device.createTexture({ width: side, height: side, format: 'rgba8unorm', samples: 1 });
  try {
    const tiles = tilesOf(size, inner);
    for (const [index, tile] of tiles.entries()) {
      if (!goesOn(index, tiles.length)) return false;
      const part = { whole: size, corner: [tile.x - margin, tile.y - margin], overview } as const;
      const targetSize = { width: side, height: side };
      renderer.draw(picture, { size: targetSize, samples: 4, target, targetSize, cssSize, part, empty: 'alpha' });
      put({ ...tile, pixels: cut(await device.readPixels(target), side, margin, tile) });
    }
    return goesOn(tiles.length, tiles.length);
  } finally {
    target.destroy();
    overview.destroy();
  }
}

/** A picture of any size in one piece; what is not drawn when it is not wanted any more is transparent. */
export async function wholePicture(
  device: Device,
  renderer: FrameRenderer,
  picture: Picture,
  size: PictureSize,
  goesOn: TileReceiver['goesOn'],
): Promise<Uint8Array<ArrayBuffer>> {
  let pixels: Uint8Array<ArrayBuffer> | undefined;
  const put = ({ x, y, width, height, pixels: some }: PictureTile): void => {
    if (width === size.width && height === size.height) {
      pixels = some;
      return;
    }
    pixels ??= new Uint8Array(size.width * size.height * 4);
    for (let row = 0; row < height; row++)
      pixels.set(some.subarray(row * width * 4, (row + 1) * width * 4), ((y + row) * size.width + x) * 4);
  };
  await drawLargePicture(device, renderer, picture, { size, cssSize: size }, { put, goesOn });
  return pixels ?? new Uint8Array(size.width * size.height * 4);
}

type Tile = Omit<PictureTile, 'pixels'>;

/** Tiles that cover a picture, row by row from the top. */
export function tilesOf({ width, height }: PictureSize, side: number): readonly Tile[] {
  const tiles: Tile[] = [];
  for (let y = 0; y < height; y += side)
    for (let x = 0; x < width; x += side) tiles.push({ x, y, width: Math.min(side, width - x), height: Math.min(side, height - y) });
  return tiles;
}

/** Half the width of the widest line in the picture, pixels. */
function widestLine({ items, camera }: Picture, size: PictureSize, cssSize: PictureSize): number {
  const high = 2 * camera.distance * Math.tan(camera.fieldOfView / 2);
  const widths = items.map(({ material }) => {
    const outline = material?.outline;
    if (outline?.method !== 'edges') return 0;
    return outline.unit === 'pixels' ? (outline.width * size.height) / cssSize.height : (outline.width * size.height) / high;
  });
  return Math.ceil(Math.max(0, ...widths) / 2);
}

/** A tile without what was drawn round it. */
function cut(pixels: Uint8Array<ArrayBuffer>, side: number, margin: number, { width, height }: Tile): Uint8Array<ArrayBuffer> {
  const rows = new Uint8Array(width * height * 4);
  for (let row = 0; row < height; row++) {
    const from = ((row + margin) * side + margin) * 4;
    rows.set(pixels.subarray(from, from + width * 4), row * width * 4);
  }
  return rows;
}
