import { ENVIRONMENT_TYPES, MESH_TYPE } from '@brelvin/contract';
import { exrHead, MeshFileRefused, meshFileHead, PictureRefused, radianceHead } from '@brelvin/core';
import { inspectImage, type ImageHead } from '@brelvin/io';
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
  const found = imageHead(head);
  if (found.type !== type) throw new AssetRefused(`This file says it is ${type}, but it holds ${found.type}.`);
  return { width: found.width, height: found.height };
}

/** @throws AssetRefused */
function imageHead(head: Buffer): ImageHead {
  try {
    return inspectImage(head);
  } catch (error) {
    throw new AssetRefused(error instanceof Error ? error.message : String(error));
  }
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
