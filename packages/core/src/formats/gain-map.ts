import { linearFromSrgb } from '../image/colour-space';
import { PictureRefused, type FloatPicture } from '../image/float-picture';

/** How a gain map makes a bright picture of a plain one: ISO 21496-1:2025, section 5.2 and annex C. Offsets and gains by channel. */
export interface GainMap {
  readonly baseHeadroom: number;
  readonly alternateHeadroom: number;
  readonly channels: readonly GainChannel[];
}

export interface GainChannel {
  /** Binary logarithms of the smallest and largest gain. */
  readonly least: number;
  readonly most: number;
  readonly gamma: number;
  readonly baseOffset: number;
  readonly alternateOffset: number;
}

/** A JPEG file that holds two pictures: the plain one, and its gain map. */
export interface GainMapFile {
  readonly base: Uint8Array<ArrayBuffer>;
  readonly map: Uint8Array<ArrayBuffer>;
  readonly gains: GainMap;
}

const NAME = 'urn:iso:std:iso:ts:21496:-1\0';
const MULTICHANNEL = 0x80;
const COMMON_DENOMINATOR = 0x08;

/** Takes a JPEG file with a gain map apart; nothing where it has none. @throws PictureRefused where its map is damaged */
export function splitGainMap(bytes: Uint8Array<ArrayBuffer>): GainMapFile | undefined {
  const first = jpegEnd(bytes, 0);
  if (first === undefined) return undefined;
  for (let start = first; start < bytes.length;) {
    const soi = findStart(bytes, start);
    if (soi === undefined) return undefined;
    const end = jpegEnd(bytes, soi) ?? bytes.length;
    const map = bytes.slice(soi, end);
    const metadata = applicationData(map, NAME);
    if (metadata) return { base: bytes.slice(0, first), map, gains: readGains(metadata) };
    start = end;
  }
  return undefined;
}

function findStart(bytes: Uint8Array, from: number): number | undefined {
  for (let at = from; at + 2 < bytes.length; at++) if (bytes[at] === 0xff && bytes[at + 1] === 0xd8 && bytes[at + 2] === 0xff) return at;
  return undefined;
}

/** Where a JPEG stream that begins here ends: ITU-T T.81, annex B. */
function jpegEnd(bytes: Uint8Array, start: number): number | undefined {
  let at = start + 2;
  if (bytes[start] !== 0xff || bytes[start + 1] !== 0xd8) return undefined;
  while (at + 3 < bytes.length) {
    if (bytes[at] !== 0xff) return undefined;
    const marker = bytes[at + 1] ?? 0;
    if (marker === 0xd9) return at + 2;
    at += 2 + (((bytes[at + 2] ?? 0) << 8) | (bytes[at + 3] ?? 0));
    if (marker !== 0xda) continue;
    // Coded pixels: until a marker that is neither a stuffed byte nor a restart.
    while (at + 1 < bytes.length && !(bytes[at] === 0xff && !isInsideScan(bytes[at + 1] ?? 0))) at++;
    if (bytes[at] === 0xff && bytes[at + 1] === 0xd9) return at + 2;
  }
  return undefined;
}

function isInsideScan(marker: number): boolean {
  return marker === 0 || marker === 0xff || (marker >= 0xd0 && marker <= 0xd7);
}

/** What an application segment of this name holds. */
function applicationData(jpeg: Uint8Array, name: string): Uint8Array | undefined {
  for (let at = 2; at + 4 < jpeg.length && jpeg[at] === 0xff && jpeg[at + 1] !== 0xda;) {
    const length = ((jpeg[at + 2] ?? 0) << 8) | (jpeg[at + 3] ?? 0);
    const begin = at + 4;
    const same = jpeg[at + 1] === 0xe2 && [...name].every((letter, index) => jpeg[begin + index] === letter.charCodeAt(0));
    if (same) return jpeg.subarray(begin + name.length, at + 2 + length);
    at += 2 + length;
  }
  return undefined;
}

function readGains(bytes: Uint8Array): GainMap {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let at = 5;
  try {
    if (view.getUint16(0) > 0) throw new PictureRefused('Its gain map is of a later version than is read.');
    const flags = view.getUint8(4);
    const number = (signed: boolean): number => {
      const value = signed ? view.getInt32(at) : view.getUint32(at);
      at += 4;
      return value;
    };
    const common = flags & COMMON_DENOMINATOR ? number(false) : undefined;
    const ratio = (signed: boolean): number => number(signed) / (common ?? number(false));
    const [baseHeadroom, alternateHeadroom] = [ratio(false), ratio(false)];
    const channels = Array.from({ length: flags & MULTICHANNEL ? 3 : 1 }, (): GainChannel => {
      const [least, most, gamma] = [ratio(true), ratio(true), ratio(false)];
      return { least, most, gamma, baseOffset: ratio(true), alternateOffset: ratio(true) };
    });
    const all = [baseHeadroom, alternateHeadroom, ...channels.flatMap((each) => Object.values(each) as number[])];
    if (!all.every(Number.isFinite) || channels.some(({ gamma }) => gamma <= 0)) throw new RangeError('not finite');
    return { baseHeadroom, alternateHeadroom, channels };
  } catch (error) {
    if (error instanceof PictureRefused) throw error;
    throw new PictureRefused('The numbers of its gain map are cut off or damaged.');
  }
}

/** Eight-bit RGBA, rows from the top. */
interface BytePicture {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8Array | Uint8ClampedArray;
}

/** The picture at its full range: ISO 21496-1:2025, section 6.3, for a display that shows all of it. */
export function withGains(base: BytePicture, map: BytePicture, { baseHeadroom, alternateHeadroom, channels }: GainMap): FloatPicture {
  const { width, height } = base;
  const data = new Float32Array(width * height * 3);
  const bright = alternateHeadroom > baseHeadroom;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      for (let channel = 0; channel < 3; channel++) {
        const at = y * width + x;
        const plain = LINEAR[base.data[at * 4 + channel] ?? 0] ?? 0;
        const gain = channels[channel] ?? channels[0];
        if (!bright || !gain) {
          data[at * 3 + channel] = plain;
          continue;
        }
        const stored = between(map, ((x + 0.5) / width) * map.width - 0.5, ((y + 0.5) / height) * map.height - 0.5, channel);
        const stops = gain.least + (gain.most - gain.least) * stored ** (1 / gain.gamma);
        data[at * 3 + channel] = (plain + gain.baseOffset) * 2 ** stops - gain.alternateOffset;
      }
  return { width, height, data };
}

const LINEAR = Float32Array.from({ length: 256 }, (_, value) => linearFromSrgb(value / 255));

/** 0…1, bilinear; a map is often smaller than its picture. */
function between({ width, height, data }: BytePicture, x: number, y: number, channel: number): number {
  const [left, top] = [Math.floor(x), Math.floor(y)];
  const read = (column: number, row: number): number =>
    (data[(Math.min(Math.max(row, 0), height - 1) * width + Math.min(Math.max(column, 0), width - 1)) * 4 + channel] ?? 0) / 255;
  const [right, down] = [x - left, y - top];
  const above = read(left, top) * (1 - right) + read(left + 1, top) * right;
  const below = read(left, top + 1) * (1 - right) + read(left + 1, top + 1) * right;
  return above * (1 - down) + below * down;
}
