import { IMAGE_TYPES, LARGEST_SIDE } from '@brelvin/contract';
import { imageSize } from 'image-size';

export interface ImageHead {
  readonly width: number;
  readonly height: number;
  /** Media type. */
  readonly type: string;
}

/**
 * Reads only the head of a file: what it is and how large.
 *
 * @param bytes of the file, or only its beginning
 * @throws Error with words for the user
 */
export function inspectImage(bytes: ArrayBuffer | Uint8Array): ImageHead {
  let found: { width?: number; height?: number; type?: string };
  try {
    found = imageSize(bytes instanceof Uint8Array ? bytes : new Uint8Array(bytes));
  } catch {
    throw new Error('It is no PNG, JPEG or WebP image, or its beginning is damaged.');
  }
  const { width = 0, height = 0, type } = found;
  const media = Object.entries(IMAGE_TYPES).find(([, name]) => name === type)?.[0];
  if (!media) throw new Error(`It is a ${(type ?? 'file of another kind').toUpperCase()}; PNG, JPEG and WebP are taken.`);
  if (width < 1 || height < 1 || width > LARGEST_SIDE || height > LARGEST_SIDE)
    throw new Error(`It claims ${width} × ${height} pixels; at most ${LARGEST_SIDE} × ${LARGEST_SIDE} are taken. Make it smaller.`);
  return { width, height, type: media };
}
