import { strFromU8, strToU8, unzipSync, zipSync, type UnzipFileInfo } from 'fflate';
import { parseDocument, type BrelvinDocument } from '../document/documents';
import { IMAGE_TYPES, LARGEST_FILE } from '../image/asset-limits';

/** A Brelvin file is a document as JSON, or a zip archive of it with the images it reads. */
export interface BrelvinFile {
  readonly document: BrelvinDocument;
  /** By SHA-256, as the names in the archive claim. */
  readonly images: ReadonlyMap<string, { readonly bytes: Uint8Array<ArrayBuffer>; readonly type: string }>;
  /** Texts of the functions of the Library that it needs, by name. */
  readonly functions: ReadonlyMap<string, string>;
}

/** The archive can not be used; the message says why. A damaged document is an InvalidDocument. */
export class BadBrelvinFile extends Error {}

const DOCUMENT = 'document.json';
const IMAGE = /^images\/([0-9a-f]{64})\.(png|jpg|webp)$/;
const FUNCTION = /^functions\/([A-Za-z_]\w{0,63})\.glsl$/;
const MOST_ENTRIES = 300;
/** The largest Brelvin file that is read, bytes, packed or unpacked. */
export const LARGEST_BRELVIN_FILE = 256 * 1024 * 1024;
const LARGEST_DOCUMENT = 32 * 1024 * 1024;

/**
 * Reads a file, in whichever of the two forms.
 *
 * @throws BadBrelvinFile, InvalidDocument
 */
export function readBrelvinFile(bytes: Uint8Array): BrelvinFile {
  const isArchive = bytes[0] === 0x50 && bytes[1] === 0x4b;
  if (!isArchive) return { document: parseDocument(strFromU8(bytes)), images: new Map(), functions: new Map() };
  const entries = unpack(bytes);
  const text = entries[DOCUMENT];
  if (!text) throw new BadBrelvinFile(`This archive holds no ${DOCUMENT}, so it is not a Brelvin file.`);
  const images = new Map(
    Object.entries(entries).flatMap(([name, content]) => {
      const [, sha256, extension] = IMAGE.exec(name) ?? [];
      const type = Object.entries(IMAGE_TYPES).find(([, word]) => word === extension)?.[0];
      return sha256 && type ? [[sha256, { bytes: new Uint8Array(content), type }] as const] : [];
    }),
  );
  const functions = new Map(
    Object.entries(entries).flatMap(([name, content]) => {
      const [, called] = FUNCTION.exec(name) ?? [];
      return called ? [[called, strFromU8(content)] as const] : [];
    }),
  );
  return { document: parseDocument(strFromU8(text)), images, functions };
}

function unpack(bytes: Uint8Array): Record<string, Uint8Array> {
  let [entries, total] = [0, 0];
  const filter = ({ name, originalSize }: UnzipFileInfo): boolean => {
    if (name.endsWith('/')) return false;
    if (name !== DOCUMENT && !IMAGE.test(name) && !FUNCTION.test(name))
      throw new BadBrelvinFile(`This archive holds “${name.slice(0, 80)}”, which has no place in a Brelvin file. Nothing was taken.`);
    entries++;
    total += originalSize;
    const most = name === DOCUMENT ? LARGEST_DOCUMENT : LARGEST_FILE;
    if (entries > MOST_ENTRIES || originalSize > most || total > LARGEST_BRELVIN_FILE)
      throw new BadBrelvinFile(`This archive unpacks to more than is taken (“${name}”: ${Math.round(originalSize / 1024 / 1024)} MiB).`);
    return true;
  };
  try {
    return unzipSync(bytes, { filter });
  } catch (error) {
    if (error instanceof BadBrelvinFile) throw error;
    throw new BadBrelvinFile('This archive is damaged or cut off. Save or copy it again.');
  }
}

/** A document with its images and functions as one file. Images are stored as they are: they are packed already. */
export function writeBrelvinFile(
  document: BrelvinDocument,
  images: ReadonlyMap<string, { readonly bytes: Uint8Array; readonly type: string }>,
  functions: ReadonlyMap<string, string> = new Map(),
): Uint8Array<ArrayBuffer> {
  const entries = [...images].map(([sha256, { bytes, type }]) => [
    `images/${sha256}.${IMAGE_TYPES[type] ?? 'png'}`,
    [bytes, { level: 0 as const }] as [Uint8Array, { level: 0 }],
  ]);
  const texts = [...functions].map(([name, code]) => [`functions/${name}.glsl`, strToU8(code)]);
  const text = strToU8(`${JSON.stringify(document, null, 2)}\n`);
  // A fixed moment: the same document gives the same file.
  return new Uint8Array(
    zipSync(
      { [DOCUMENT]: text, ...(Object.fromEntries(entries) as object), ...(Object.fromEntries(texts) as object) },
      { mtime: new Date('2026-01-01T00:00:00') },
    ),
  );
}
