import type { ResolvedInlet } from '../compile/resolve';
import { linearFromSrgb } from '../image/colour-space';
import type { CheckInput } from './check';
import { sourceOf } from './graph-places';

const CHANNELS: Readonly<Record<string, readonly number[]>> = { colour: [0, 1, 2], red: [0], green: [1], blue: [2], alpha: [3] };

/** An image that runs into an inlet as it is. */
export interface ImageFeed {
  readonly image: string;
  readonly name: string;
  /** Path of the image's node. */
  readonly node: string;
}

export function imageFeed(input: CheckInput, inlet: ResolvedInlet): ImageFeed | undefined {
  const source = sourceOf(input, inlet);
  const image = source?.node?.image;
  const found = image === undefined ? undefined : input.material.images[image];
  return source && image !== undefined && found ? { image, name: found.name || 'An image', node: source.id } : undefined;
}

/** The value that an image brings to an inlet, where all its pixels have the same. */
export function evenFeed(input: CheckInput, inlet: ResolvedInlet): (ImageFeed & { readonly value: readonly number[] }) | undefined {
  const feed = imageFeed(input, inlet);
  const image = feed && input.material.images[feed.image];
  const even = image && input.images?.get(image.asset)?.even;
  const stored = CHANNELS[inlet.ribbon?.outlet ?? '']?.map((channel) => even?.[channel]);
  if (!feed || !image || !stored?.every((each) => each !== undefined)) return undefined;
  const decoded = image.role === 'colour' && inlet.ribbon?.outlet !== 'alpha';
  return { ...feed, value: stored.map((each) => (decoded ? linearFromSrgb(each ?? 0) : (each ?? 0))) };
}
