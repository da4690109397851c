import { PNG } from 'pngjs';

/** A picture as a PNG file. @param pixels RGBA rows from the top, 8 bit */
export function pngFile({ width, height }: { readonly width: number; readonly height: number }, pixels: Uint8Array): Buffer {
  const png = new PNG({ width, height });
  png.data = Buffer.from(pixels.buffer, pixels.byteOffset, pixels.byteLength);
  return PNG.sync.write(png, { deflateLevel: 6 });
}
