import type { FrameRenderer } from './frame-renderer';
import { TERMS, WHOLE_PICTURE, type Term } from './inspection';
import { LARGEST_AT_ONCE } from './large-picture';
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

/** The longer side of a picture in layers, which is drawn at once. Pixels. */
export const LARGEST_LAYERS = LARGEST_AT_ONCE;

/**
 * Rows from the top, the numbers of each pixel as `channelsOf` says. Colours are scene-linear: before exposure and tone curve, with the background's opacity. All terms of what
 * hides others together are the whole; what is seen through glass belongs to its transmission.
 * What is recorded is not averaged over the pixel.
 */
export async function drawLayers(
  renderer: FrameRenderer,
  picture: Picture,
  size: PictureSize,
  layers: readonly PictureLayer[],
): Promise<ReadonlyMap<PictureLayer, Float32Array<ArrayBuffer>>> {
  const drawn = new Map<PictureLayer, Float32Array<ArrayBuffer>>();
  for (const layer of layers)
    if (!isRecorded(layer)) drawn.set(layer, await renderer.measure(layer === 'whole' ? picture : ofTerm(picture, layer), size, 4));
  if (!layers.some(isRecorded)) return drawn;
  const { normals, depths, numbers } = await renderer.record(picture, size);
  const recorded = { normal: normals, depth: depths, part: numbers };
  for (const layer of layers) if (isRecorded(layer)) drawn.set(layer, recorded[layer]);
  return drawn;
}

function ofTerm(picture: Picture, wanted: Term): Picture {
  const weights = Object.fromEntries(TERMS.map((term) => [term, term === wanted ? 1 : 0])) as Record<Term, number>;
  return { ...picture, rig: { ...picture.rig, transparent: true }, inspection: { ...WHOLE_PICTURE, weights } };
}
