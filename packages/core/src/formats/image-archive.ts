import { LARGEST_FILE } from '@brelvin/contract';
import { unzipSync, type UnzipFileInfo } from 'fflate';

/** A file of an archive. */
export interface ArchivedFile {
  /** With its folders. */
  readonly name: string;
  readonly bytes: Uint8Array<ArrayBuffer>;
}

/** What was taken out of an archive, and the names of what was left in it. */
export interface Unpacked {
  readonly files: readonly ArchivedFile[];
  readonly left: readonly string[];
}

/** The archive cannot be used; the message is for the user. */
export class ArchiveRefused extends Error {}

export const LARGEST_ARCHIVE = 256 * 1024 * 1024;
const MOST_FILES = 256;
const MOST_ENTRIES = 2000;
const MEBIBYTE = 1024 * 1024;

/**
 * Takes the files of some kinds out of a zip archive (PKWARE APPNOTE 6.3). Sizes are bounded by what its directory claims
 * before anything is unpacked, and never more than that is written; names that lead out of it are refused.
 *
 * @param wanted which names are taken
 * @throws ArchiveRefused
 */
export function unpackArchive(bytes: Uint8Array, wanted: (name: string) => boolean): Unpacked {
  if (bytes.length > LARGEST_ARCHIVE)
    throw new ArchiveRefused(
      `It has ${Math.round(bytes.length / MEBIBYTE)} MiB; at most ${LARGEST_ARCHIVE / MEBIBYTE} are taken. Pack less into it.`,
    );
  const left: string[] = [];
  let [entries, files, total] = [0, 0, 0];
  const filter = ({ name, originalSize }: UnzipFileInfo): boolean => {
    if (++entries > MOST_ENTRIES) throw new ArchiveRefused(`It holds more than ${MOST_ENTRIES} entries. Pack only what is wanted.`);
    if (climbsOut(name)) throw new ArchiveRefused(`It holds a name that leads out of it, “${name.slice(0, 80)}”. Nothing was taken.`);
    if (name.endsWith('/') || isHidden(name)) return false;
    if (!wanted(name)) {
      left.push(name);
      return false;
    }
    files++;
    total += originalSize;
    if (originalSize > LARGEST_FILE || total > LARGEST_ARCHIVE)
      throw new ArchiveRefused(
        `It unpacks to more than is taken (“${name}”: ${Math.round(originalSize / MEBIBYTE)} MiB). Nothing was taken.`,
      );
    if (files > MOST_FILES)
      throw new ArchiveRefused(`It holds more than ${MOST_FILES} files that could be taken. Pack only what is wanted.`);
    return true;
  };
  try {
    const found = Object.entries(unzipSync(bytes, { filter }));
    return { files: found.map(([name, content]) => ({ name, bytes: new Uint8Array(content) })), left };
  } catch (error) {
    if (error instanceof ArchiveRefused) throw error;
    throw new ArchiveRefused('It is damaged or cut off. Save or copy it again.');
  }
}

/** Whether a file's first bytes are those of a zip archive. */
export function isArchive(bytes: Uint8Array): boolean {
  return bytes[0] === 0x50 && bytes[1] === 0x4b && (bytes[2] === 3 || bytes[2] === 5);
}

function climbsOut(name: string): boolean {
  return /^([/\\]|[A-Za-z]:)/.test(name) || name.split(/[/\\]/).includes('..') || name.includes('\0');
}

/** What systems put beside the files of people. */
function isHidden(name: string): boolean {
  return name.split('/').some((step) => step.startsWith('.') || step === '__MACOSX');
}
