import { exrHead, LARGEST_PANORAMA, PictureRefused, RowReducer, type FloatPicture } from '@brelvin/core';
import start, { readExr as decode, type InitOutput } from 'exrs/node_modules/exrs-raw-wasm-bindgen/exrs_raw_wasm_bindgen.js';
import type { Binaries } from '../binaries';

/** A picture beyond white, and what was done to it on its way. */
export interface HighRangePicture {
  readonly picture: FloatPicture;
  readonly words?: string;
}

/** Reads OpenEXR, by a library that is started when it is first needed. */
export class ExrReader {
  private started?: Promise<InitOutput>;

  constructor(private readonly binaries: Binaries) {}

  /** @throws PictureRefused */
  async read(bytes: Uint8Array): Promise<HighRangePicture> {
    // What the head says no to needs no library.
    exrHead(bytes);
    await (this.started ??= this.binaries('exr').then((binary) => start({ module_or_path: binary })));
    try {
      return pictureOf(bytes);
    } catch (error) {
      if (error instanceof PictureRefused) throw error;
      // A program that failed inside may be in any state: the next file gets a fresh one.
      this.started = undefined;
      throw new PictureRefused('It cannot be decoded: the file is damaged or cut off.');
    }
  }
}

function pictureOf(bytes: Uint8Array): HighRangePicture {
  const { width, height, channels } = exrHead(bytes);
  const decoder = decode(bytes);
  try {
    const pixels = decoder.getLayerPixels(0, channels.includes('R') ? ['R', 'G', 'B'] : ['Y']);
    const count = channels.includes('R') ? 3 : 1;
    if (!pixels || pixels.length !== width * height * count) throw new PictureRefused('Its head and its pixels do not say the same size.');
    const reducer = new RowReducer(width, height, LARGEST_PANORAMA);
    const values = new Float32Array(width * 3);
    for (let row = 0; row < height; row++) {
      for (let at = 0; at < width * 3; at++)
        values[at] = pixels[count === 3 ? row * width * 3 + at : row * width + Math.floor(at / 3)] ?? 0;
      reducer.put(row, values);
    }
    return { picture: reducer.finish(), words: reducer.words };
  } finally {
    decoder.free();
  }
}
