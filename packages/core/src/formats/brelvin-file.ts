import { type BrelvinDocument, ENVIRONMENT_TYPES, IMAGE_TYPES, LARGEST_MESH_FILE, MESH_TYPE } from '@brelvin/contract';
import { strFromU8, strToU8, unzipSync, zipSync, type UnzipFileInfo } from 'fflate';
import { parseDocument } from '../document/documents';

/** A file of the workspace as it travels. */
export interface FileContent {
  readonly bytes: Uint8Array<ArrayBuffer>;
  /** Media type. */
  readonly type: string;
}

/**
 * A Brelvin file is a document as JSON, or a zip archive of it with all that it shows: images, meshes, environments, the
 * functions that it needs, and the documents that are seen with it.
 */
export interface BrelvinFile {
  readonly document: BrelvinDocument;
  /** Documents that are seen with it, by the ids by which they refer to each other. */
  readonly beside: ReadonlyMap<string, BrelvinDocument>;
  /** Files of all of them by SHA-256, as the names in the archive claim. */
  readonly assets: ReadonlyMap<string, FileContent>;
  /** Texts of the functions of the Library that they need, by name. */
  readonly functions: ReadonlyMap<string, string>;
}

/** The archive cannot be used; the message says why. A damaged document is an InvalidDocument. */
export class BadBrelvinFile extends Error {}

const DOCUMENT = 'document.json';
const BESIDE = /^beside\/([A-Za-z0-9_-]{1,64})\.json$/;
const ASSET = /^(images|environments|meshes)\/([0-9a-f]{64})\.([a-z]{3,4})$/;
const FUNCTION = /^functions\/([A-Za-z_]\w{0,63})\.glsl$/;
/** Where files of each media type lie, and their ending. */
const PLACES: Readonly<Record<string, readonly [folder: string, ending: string]>> = {
  ...places('images', IMAGE_TYPES),
  ...places('environments', ENVIRONMENT_TYPES),
  [MESH_TYPE]: ['meshes', 'mesh'],
};
const MOST_ENTRIES = 600;
/** The largest Brelvin file that is read, bytes, packed or unpacked. */
export const LARGEST_BRELVIN_FILE = 256 * 1024 * 1024;
const LARGEST_DOCUMENT = 32 * 1024 * 1024;

function places(folder: string, types: Readonly<Record<string, string>>): Record<string, readonly [string, string]> {
  return Object.fromEntries(Object.entries(types).map(([type, ending]) => [type, [folder, ending]]));
}

/**
 * Reads a file, in whichever of the two forms.
 *
 * @throws BadBrelvinFile, InvalidDocument
 */
export function readBrelvinFile(bytes: Uint8Array): BrelvinFile {
  const isArchive = bytes[0] === 0x50 && bytes[1] === 0x4b;
  if (!isArchive) return { document: parseDocument(strFromU8(bytes)), beside: new Map(), assets: new Map(), functions: new Map() };
  const entries = Object.entries(unpack(bytes));
  const text = entries.find(([name]) => name === DOCUMENT)?.[1];
  if (!text) throw new BadBrelvinFile(`This archive holds no ${DOCUMENT}, so it is not a Brelvin file.`);
  const assets = entries.flatMap(([name, content]) => {
    const [, folder, sha256, ending] = ASSET.exec(name) ?? [];
    const type = Object.keys(PLACES).find((each) => PLACES[each]?.[0] === folder && PLACES[each]?.[1] === ending);
    return sha256 && type ? [[sha256, { bytes: new Uint8Array(content), type }] as const] : [];
  });
  const named = <T>(pattern: RegExp, read: (text: string) => T): Map<string, T> =>
    new Map(
      entries.flatMap(([name, content]) => {
        const [, called] = pattern.exec(name) ?? [];
        return called ? [[called, read(strFromU8(content))] as const] : [];
      }),
    );
  return {
    document: parseDocument(strFromU8(text)),
    beside: named(BESIDE, parseDocument),
    assets: new Map(assets),
    functions: named(FUNCTION, (code) => code),
  };
}

function hasPlace(name: string): boolean {
  return name === DOCUMENT || BESIDE.test(name) || ASSET.test(name) || FUNCTION.test(name);
}

function unpack(bytes: Uint8Array): Record<string, Uint8Array> {
  let [entries, total] = [0, 0];
  const filter = ({ name, originalSize }: UnzipFileInfo): boolean => {
    if (name.endsWith('/')) return false;
    if (!hasPlace(name))
      throw new BadBrelvinFile(`This archive holds “${name.slice(0, 80)}”, which has no place in a Brelvin file. Nothing was taken.`);
    entries++;
    total += originalSize;
    const most = name.endsWith('.json') ? LARGEST_DOCUMENT : LARGEST_MESH_FILE;
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

/** A document and all that comes with it as one file. Assets are stored as they are: they are packed already, or nearly. */
export function writeBrelvinFile({
  document,
  beside = new Map(),
  assets = new Map(),
  functions = new Map(),
}: Pick<BrelvinFile, 'document'> &
  Partial<Omit<BrelvinFile, 'document' | 'assets'>> & {
    readonly assets?: ReadonlyMap<string, { readonly bytes: Uint8Array; readonly type: string }>;
  }): Uint8Array<ArrayBuffer> {
  const json = (each: BrelvinDocument): Uint8Array => strToU8(`${JSON.stringify(each, null, 2)}\n`);
  const entries: Record<string, Uint8Array | [Uint8Array, { level: 0 }]> = { [DOCUMENT]: json(document) };
  for (const [id, each] of beside) entries[`beside/${id}.json`] = json(each);
  for (const [sha256, { bytes, type }] of assets) {
    const [folder, ending] = PLACES[type] ?? ['images', 'png'];
    entries[`${folder}/${sha256}.${ending}`] = [bytes, { level: 0 }];
  }
  for (const [name, code] of functions) entries[`functions/${name}.glsl`] = strToU8(code);
  // A fixed moment: the same document gives the same file.
  return new Uint8Array(zipSync(entries, { mtime: new Date('2026-01-01T00:00:00') }));
}
