import type { FrameRenderer } from './frame-renderer';
import { TERMS, WHOLE_PICTURE, type Term } from './inspection';
import {
  cutTile,
  inTiles,
  LARGEST_AT_ONCE,
  LARGEST_PICTURE,
  putTile,
  type DrawnTile,
  type LargePictureSizes,
  type Tile,
  type TileReceiver,
} from './large-picture';
import type { Picture } from './picture';
import type { PictureSize } from './picture-part';

/** What is recorded of what is seen at a pixel, beside its light. */
export const RECORDED = ['normal', 'depth', 'part'] as const;
type Recorded = (typeof RECORDED)[number];

/** What a picture is kept of beyond white: the whole, a term of its light alone before nothing, or what is seen there. */
export const PICTURE_LAYERS = ['whole', ...TERMS, ...RECORDED] as const;
export type PictureLayer = (typeof PICTURE_LAYERS)[number];

const COLOUR_CHANNELS = ['R', 'G', 'B', 'A'];
const RECORDED_CHANNELS: Readonly<Record<Recorded, readonly string[]>> = { normal: ['X', 'Y', 'Z'], depth: ['Z'], part: ['id'] };

/** What the numbers of a layer are called, pixel by pixel. OpenEXR, "Technical Introduction": `Z` is depth. */
export function channelsOf(layer: PictureLayer): readonly string[] {
  return isRecorded(layer) ? RECORDED_CHANNELS[layer] : COLOUR_CHANNELS;
}

function isRecorded(layer: PictureLayer): layer is Recorded {
  return (RECORDED as readonly string[]).includes(layer);
}

/** Numbers that a picture in layers may have in all: the whole of the largest picture. */
export const MOST_LAYER_NUMBERS = LARGEST_PICTURE ** 2 * COLOUR_CHANNELS.length;

/** How many numbers a picture in these layers has. */
export function layerNumbers({ width, height }: PictureSize, layers: readonly PictureLayer[]): number {
  return layers.reduce((sum, layer) => sum + width * height * channelsOf(layer).length, 0);
}

export type LayerValues = ReadonlyMap<PictureLayer, Float32Array<ArrayBuffer>>;

/**
 * Rows from the top, the numbers of each pixel as `channelsOf` says. Colours are scene-linear: before exposure and tone curve,
 * with the background's opacity. All terms of what hides others together are the whole; what is seen through glass belongs to
 * its transmission. What is recorded is not averaged over the pixel. Large ones are drawn in tiles.
 *
 * @returns nothing where it is not wanted any more
 */
export async function drawLayers(
  renderer: FrameRenderer,
  picture: Picture,
  sizes: LargePictureSizes,
  layers: readonly PictureLayer[],
  goesOn: TileReceiver['goesOn'],
): Promise<LayerValues | undefined> {
  const { size, atOnce = LARGEST_AT_ONCE } = sizes;
  const recorded = layers.filter(isRecorded);
  const colours = layers.filter((layer) => !isRecorded(layer));
  const steps = colours.length + (recorded.length > 0 ? 1 : 0);
  const isLarge = Math.max(size.width, size.height) > atOnce;
  const drawn = new Map<PictureLayer, Float32Array<ArrayBuffer>>();
  const put = (layer: PictureLayer, values: Float32Array<ArrayBuffer>, tile?: Tile, part?: DrawnTile): void => {
    const channels = channelsOf(layer).length;
    if (!tile || !part) {
      drawn.set(layer, values);
      return;
    }
    const whole = drawn.get(layer) ?? new Float32Array(size.width * size.height * channels);
    drawn.set(layer, whole);
    putTile(whole, channels, size, tile, cutTile(values, channels, part, tile));
  };
  /** Draws what one step is about, at once or in tiles. */
  const step = async (done: number, seen: Picture, draw: (size: PictureSize, tile?: Tile, part?: DrawnTile) => Promise<void>) => {
    if (isLarge)
      return inTiles(
        renderer,
        seen,
        sizes,
        (some, of) => goesOn(done + some / of, steps),
        (tile, part) => draw(part.size, tile, part),
      );
    if (!goesOn(done, steps)) return false;
    await draw(size);
    return true;
  };
  for (const [done, layer] of colours.entries()) {
    const seen = layer === 'whole' ? picture : ofTerm(picture, layer);
    const wanted = await step(done, seen, async (drawnSize, tile, part) => {
      put(layer, await renderer.measure(seen, drawnSize, 4, part), tile, part);
    });
    if (!wanted) return undefined;
  }
  if (recorded.length > 0) {
    const wanted = await step(colours.length, picture, async (drawnSize, tile, part) => {
      const { normals, depths, numbers } = await renderer.record(picture, drawnSize, part);
      const values = { normal: normals, depth: depths, part: numbers };
      for (const layer of recorded) put(layer, values[layer], tile, part);
    });
    if (!wanted) return undefined;
  }
  return goesOn(steps, steps) ? drawn : undefined;
}

function ofTerm(picture: Picture, wanted: Term): Picture {
  const weights = Object.fromEntries(TERMS.map((term) => [term, term === wanted ? 1 : 0])) as Record<Term, number>;
  return { ...picture, rig: { ...picture.rig, transparent: true }, inspection: { ...WHOLE_PICTURE, weights } };
}
