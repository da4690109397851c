import { ENVIRONMENT_TYPES, IMAGE_TYPES, LARGEST_SIDE, MESH_TYPE } from '@brelvin/contract';
import { imageSize } from 'image-size';
import { exrHead, MeshFileRefused, meshFileHead, PictureRefused, radianceHead } from '@brelvin/core';
import { AssetRefused } from './failures';

/** Bytes of a file that say what it is. Photographs may have pictures of their own, in small, before they say how large they are. */
export const HEAD_BYTES = 4 * 1024 * 1024;

/**
 * Size in pixels of a file, from its first bytes.
 *
 * @param bytes of the whole file
 * @throws AssetRefused for anything that is no file of the announced type, or too large to be decoded
 */
export function checkedSize(head: Buffer, bytes: number, type: string): { width: number; height: number } {
  if (ENVIRONMENT_TYPES[type]) return environmentSize(head, type);
  if (type === MESH_TYPE) return meshSize(head, bytes);
  let found: { width?: number; height?: number; type?: string };
  try {
    found = imageSize(head);
  } catch {
    throw new AssetRefused('This is not an image that can be read: its beginning is damaged.');
  }
  const { width = 0, height = 0 } = found;
  if (IMAGE_TYPES[type] !== found.type)
    throw new AssetRefused(`This file says it is ${type}, but it holds ${found.type ?? 'something else'}.`);
  if (width < 1 || height < 1 || width > LARGEST_SIDE || height > LARGEST_SIDE)
    throw new AssetRefused(`This image claims ${width} × ${height} pixels; at most ${LARGEST_SIDE} × ${LARGEST_SIDE} are taken.`);
  return { width, height };
}

/** A mesh has no pixels. @throws AssetRefused */
function meshSize(head: Buffer, bytes: number): { width: number; height: number } {
  try {
    meshFileHead(head, bytes);
    return { width: 0, height: 0 };
  } catch (error) {
    if (error instanceof MeshFileRefused) throw new AssetRefused(error.message);
    throw error;
  }
}

/** @throws AssetRefused */
function environmentSize(head: Buffer, type: string): { width: number; height: number } {
  try {
    const { width, height } = ENVIRONMENT_TYPES[type] === 'exr' ? exrHead(head) : radianceHead(head);
    return { width, height };
  } catch (error) {
    if (error instanceof PictureRefused) throw new AssetRefused(error.message);
    throw error;
  }
}
