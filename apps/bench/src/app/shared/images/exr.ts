import { exrHead, LARGEST_PANORAMA, PictureRefused, RowReducer, type FloatPicture } from '@brelvin/core';
import { readExr } from 'exrs/node_modules/exrs-raw-wasm-bindgen/exrs_raw_wasm_bindgen.js';

/**
 * Reads an OpenEXR picture, once the library behind it is started.
 *
 * @throws PictureRefused
 */
export function decodeExr(bytes: Uint8Array): { readonly picture: FloatPicture; readonly words?: string } {
  const { width, height, channels } = exrHead(bytes);
  const decoder = readExr(bytes);
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
