import {
  exrHead,
  facesPixels,
  isExr,
  isRadiance,
  LARGEST_PANORAMA,
  linearFromSrgb,
  panoramaPixels,
  PictureRefused,
  readRadiance,
  splitGainMap,
  withGains,
  type EnvironmentPixels,
  type FloatPicture,
} from '@brelvin/core';
import { expose, transfer } from 'comlink';
import startExr, { type InitOutput } from 'exrs/node_modules/exrs-raw-wasm-bindgen/exrs_raw_wasm_bindgen.js';
import { decodeImage } from './codecs';
import { decodeExr } from './exr';

/** A file of an environment. */
export interface EnvironmentFile {
  readonly name: string;
  readonly bytes: ArrayBuffer;
}

let exr: Promise<InitOutput> | undefined;

/** Decodes environments apart from the page. What is no longer wanted goes with the worker. */
class EnvironmentDecoder {
  /**
   * @param files one panorama, or six faces in the order of a cube’s
   * @param onShare told the part that is done, 0…1
   * @throws Error with words for the user
   */
  async decode(files: readonly EnvironmentFile[], onShare: (share: number) => void): Promise<EnvironmentPixels> {
    const read: { picture: FloatPicture; words?: string }[] = [];
    for (const [index, { name, bytes }] of files.entries()) {
      try {
        read.push(await readPicture(bytes, (share) => onShare(((index + share) / files.length) * 0.8)));
      } catch (error) {
        const words = error instanceof Error ? error.message : String(error);
        throw new Error(files.length > 1 ? `${name}: ${words}` : words);
      }
    }
    const [first] = read;
    const pictures = read.map(({ picture }) => picture);
    const words = read.map((each) => each.words);
    const pixels =
      first && read.length === 1
        ? panoramaPixels(first.picture, words)
        : facesPixels(
            pictures,
            files.map(({ name }) => name),
          );
    onShare(1);
    return transfer(
      pixels,
      [...pixels.levels, ...(pixels.dimmed ?? [])].map(({ buffer }) => buffer),
    );
  }
}

async function readPicture(bytes: ArrayBuffer, onShare: (share: number) => void): Promise<{ picture: FloatPicture; words?: string }> {
  const plain = new Uint8Array(bytes);
  if (isRadiance(plain)) return readRadiance(plain, LARGEST_PANORAMA, onShare);
  if (isExr(plain)) return readExr(plain);
  const split = splitGainMap(plain);
  if (!split) return { picture: linear(await decodeImage(bytes)) };
  const [base, map] = [await decodeImage(split.base.buffer), await decodeImage(split.map.buffer)];
  return { picture: withGains(base, map, split.gains) };
}

/** @throws PictureRefused */
async function readExr(bytes: Uint8Array): Promise<{ picture: FloatPicture; words?: string }> {
  // What the head says no to needs no library.
  exrHead(bytes);
  await (exr ??= startExr({ module_or_path: '/codecs/exrs_raw_wasm_bindgen_bg.wasm' }));
  try {
    return decodeExr(bytes);
  } catch (error) {
    if (error instanceof PictureRefused) throw error;
    // A program that failed inside may be in any state: the next file gets a fresh one.
    exr = undefined;
    throw new PictureRefused('It can not be decoded: the file is damaged or cut off.');
  }
}

const LINEAR = Float32Array.from({ length: 256 }, (_, value) => linearFromSrgb(value / 255));

function linear({ width, height, data }: ImageData): FloatPicture {
  const made = new Float32Array(width * height * 3);
  for (let at = 0; at < width * height; at++)
    for (let channel = 0; channel < 3; channel++) made[at * 3 + channel] = LINEAR[data[at * 4 + channel] ?? 0] ?? 0;
  return { width, height, data: made };
}

export type RemoteEnvironments = EnvironmentDecoder;

expose(new EnvironmentDecoder());
