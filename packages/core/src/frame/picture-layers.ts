import type { FrameRenderer } from './frame-renderer';
import { TERMS, WHOLE_PICTURE, type Term } from './inspection';
import { LARGEST_AT_ONCE } from './large-picture';
import type { Picture } from './picture';
import type { PictureSize } from './picture-part';

/** What a picture is kept of beyond white: the whole, or a term of its light alone, before nothing. */
export const PICTURE_LAYERS = ['whole', ...TERMS] as const;
export type PictureLayer = (typeof PICTURE_LAYERS)[number];

/** The longer side of a picture in layers, which is drawn at once. Pixels. */
export const LARGEST_LAYERS = LARGEST_AT_ONCE;

/**
 * Scene-linear colours, RGBA rows from the top: before exposure and tone curve, with the background's opacity. All terms of what
 * hides others together are the whole; what is seen through glass belongs to its transmission.
 */
export async function drawLayers(
  renderer: FrameRenderer,
  picture: Picture,
  size: PictureSize,
  layers: readonly PictureLayer[],
): Promise<ReadonlyMap<PictureLayer, Float32Array<ArrayBuffer>>> {
  const drawn = new Map<PictureLayer, Float32Array<ArrayBuffer>>();
  for (const layer of layers) drawn.set(layer, await renderer.measure(layer === 'whole' ? picture : ofTerm(picture, layer), size, 4));
  return drawn;
}

function ofTerm(picture: Picture, wanted: Term): Picture {
  const weights = Object.fromEntries(TERMS.map((term) => [term, term === wanted ? 1 : 0])) as Record<Term, number>;
  return { ...picture, rig: { ...picture.rig, transparent: true }, inspection: { ...WHOLE_PICTURE, weights } };
}
