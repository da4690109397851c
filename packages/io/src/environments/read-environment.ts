import {
  facesPixels,
  isExr,
  isRadiance,
  LARGEST_PANORAMA,
  linearFromSrgb,
  panoramaPixels,
  readRadiance,
  splitGainMap,
  withGains,
  type EnvironmentPixels,
  type FloatPicture,
} from '@brelvin/core';
import type { ImageCodecs, StoredPixels } from '../images/codecs';
import type { ExrReader, HighRangePicture } from './read-exr';

/** A file of an environment. */
export interface EnvironmentFile {
  readonly name: string;
  readonly bytes: ArrayBuffer;
}

/** What reads the files. */
export interface PictureReaders {
  readonly codecs: ImageCodecs;
  readonly exr: ExrReader;
}

/**
 * @param files one panorama, or six faces in the order of a cube’s
 * @param onShare told the part that is done, 0…1
 * @throws Error with words for the user
 */
export async function readEnvironment(
  readers: PictureReaders,
  files: readonly EnvironmentFile[],
  onShare: (share: number) => void = () => undefined,
): Promise<EnvironmentPixels> {
  const read: HighRangePicture[] = [];
  for (const [index, { name, bytes }] of files.entries()) {
    try {
      read.push(await readPicture(readers, bytes, (share) => onShare(((index + share) / files.length) * 0.8)));
    } catch (error) {
      const words = error instanceof Error ? error.message : String(error);
      throw new Error(files.length > 1 ? `${name}: ${words}` : words);
    }
  }
  const [first] = read;
  const pictures = read.map(({ picture }) => picture);
  const words = read.map((each) => each.words);
  const names = files.map(({ name }) => name);
  const pixels = first && read.length === 1 ? panoramaPixels(first.picture, words) : facesPixels(pictures, names);
  onShare(1);
  return pixels;
}

async function readPicture(
  { codecs, exr }: PictureReaders,
  bytes: ArrayBuffer,
  onShare: (share: number) => void,
): Promise<HighRangePicture> {
  const plain = new Uint8Array(bytes);
  if (isRadiance(plain)) return readRadiance(plain, LARGEST_PANORAMA, onShare);
  if (isExr(plain)) return exr.read(plain);
  const split = splitGainMap(plain);
  if (!split) return { picture: linear(await codecs.decode(bytes)) };
  const [base, map] = [await codecs.decode(split.base.buffer), await codecs.decode(split.map.buffer)];
  return { picture: withGains(base, map, split.gains) };
}

const LINEAR = Float32Array.from({ length: 256 }, (_, value) => linearFromSrgb(value / 255));

function linear({ width, height, data }: StoredPixels): FloatPicture {
  const made = new Float32Array(width * height * 3);
  for (let at = 0; at < width * height; at++)
    for (let channel = 0; channel < 3; channel++) made[at * 3 + channel] = LINEAR[data[at * 4 + channel] ?? 0] ?? 0;
  return { width, height, data: made };
}
