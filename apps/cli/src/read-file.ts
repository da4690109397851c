import { readFile, stat } from 'node:fs/promises';
import type { Material } from '@brelvin/contract';
import { BadBrelvinFile, InvalidDocument, LARGEST_BRELVIN_FILE, readBrelvinFile, type BrelvinFile } from '@brelvin/core';

/** A file cannot be used; the message says which, why, and what to do. */
export class BadFile extends Error {}

/** @throws BadFile */
export async function readTextFile(path: string): Promise<string> {
  return (await readBytes(path)).toString('utf8');
}

/** @throws BadFile */
export async function readBytes(path: string): Promise<Buffer> {
  try {
    const { size } = await stat(path);
    if (size > LARGEST_BRELVIN_FILE) throw new BadFile(`${path}: has ${size} bytes; at most ${LARGEST_BRELVIN_FILE} are read.`);
    return await readFile(path);
  } catch (error) {
    if (error instanceof BadFile) throw error;
    throw new BadFile(`${path}: cannot be read (${(error as NodeJS.ErrnoException).code ?? String(error)}).`);
  }
}

/** A document with all that came in its file. @throws BadFile */
export async function readBrelvinDocument(path: string): Promise<BrelvinFile> {
  const bytes = await readBytes(path);
  try {
    return readBrelvinFile(bytes);
  } catch (error) {
    if (error instanceof InvalidDocument || error instanceof BadBrelvinFile) throw new BadFile(`${path}: ${error.message}`);
    throw error;
  }
}

/** @throws BadFile also for a set or light rig */
export async function readMaterialFile(
  path: string,
): Promise<{ readonly material: Material; readonly functions: BrelvinFile['functions'] }> {
  const { document, functions } = await readBrelvinDocument(path);
  if (document.format !== 'brelvin-material')
    throw new BadFile(`${path}: is a ${document.format.replace('brelvin-', '').replace('-', ' ')}, not a material.`);
  return { material: document, functions };
}
