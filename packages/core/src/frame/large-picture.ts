import type { Device } from '../device/device';
import { drawnPixels } from './drawn-pixels';
import type { FrameRenderer } from './frame-renderer';
import type { Picture } from './picture';
import type { Overview } from './overview';
import type { PicturePart, PictureSize } from './picture-part';

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
  const drawnSize = tileSize(picture, { size, cssSize, tile: inner });
  const target = device.createTexture({ ...drawnSize, format: 'rgba8unorm', samples: 1 });
  try {
    return await inTiles(renderer, picture, { size, cssSize, atOnce, tile: inner }, goesOn, async (tile, part) => {
      renderer.draw(picture, { size: drawnSize, samples: 4, target, targetSize: drawnSize, cssSize, part, empty: 'alpha' });
      put({ ...tile, pixels: cutTile(await device.readPixels(target), 4, part, tile) });
    });
  } finally {
    target.destroy();
  }
}

/** A tile as it is drawn: with what stands round it. */
export interface DrawnTile extends PicturePart {
  readonly size: PictureSize;
  readonly overview: Overview;
}

/**
 * Goes through the tiles of a large picture, which have in common what is found for the whole of it.
 *
 * @returns whether it came to its end
 */
export async function inTiles(
  renderer: FrameRenderer,
  picture: Picture,
  { size, cssSize, atOnce = LARGEST_AT_ONCE, tile: inner = TILE }: LargePictureSizes,
  goesOn: TileReceiver['goesOn'],
  draw: (tile: Tile, drawn: DrawnTile) => Promise<void>,
): Promise<boolean> {
  const shrink = atOnce / Math.max(size.width, size.height);
  const small = { width: Math.max(1, Math.round(size.width * shrink)), height: Math.max(1, Math.round(size.height * shrink)) };
  const drawnSize = tileSize(picture, { size, cssSize, tile: inner });
  const margin = (drawnSize.width - inner) / 2;
  const overview = renderer.overview(picture, small, cssSize);
  try {
    const tiles = tilesOf(size, inner);
    for (const [index, tile] of tiles.entries()) {
      if (!goesOn(index, tiles.length)) return false;
      await draw(tile, { whole: size, corner: [tile.x - margin, tile.y - margin], size: drawnSize, overview });
    }
    return goesOn(tiles.length, tiles.length);
  } finally {
    overview.destroy();
  }
}

function tileSize(picture: Picture, { size, cssSize, tile = TILE }: LargePictureSizes): PictureSize {
  const side = tile + 2 * (LEAST_MARGIN + widestLine(picture, size, cssSize));
  return { width: side, height: side };
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
    putTile(pixels, 4, size, { x, y, width, height }, some);
  };
  await drawLargePicture(device, renderer, picture, { size, cssSize: size }, { put, goesOn });
  return pixels ?? new Uint8Array(size.width * size.height * 4);
}

export type Tile = Omit<PictureTile, 'pixels'>;

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

/** The numbers of a tile, so many for each pixel, without what was drawn round it. */
export function cutTile<Numbers extends Uint8Array<ArrayBuffer> | Float32Array<ArrayBuffer>>(
  drawn: Numbers,
  channels: number,
  { corner: [left, top], size: { width: across } }: Pick<DrawnTile, 'corner' | 'size'>,
  { x, y, width, height }: Tile,
): Numbers {
  const rows = drawn.slice(0, width * height * channels) as Numbers;
  for (let row = 0; row < height; row++) {
    const from = ((row + y - top) * across + x - left) * channels;
    rows.set(drawn.subarray(from, from + width * channels), row * width * channels);
  }
  return rows;
}

/** Puts the numbers of a tile where they stand in the whole. */
export function putTile<Numbers extends Uint8Array | Float32Array>(
  whole: Numbers,
  channels: number,
  { width: across }: PictureSize,
  { x, y, width, height }: Tile,
  numbers: Numbers,
): void {
  for (let row = 0; row < height; row++)
    whole.set(numbers.subarray(row * width * channels, (row + 1) * width * channels), ((y + row) * across + x) * channels);
}
