/** 8-bit sRGB RGBA rows as a PNG; a square unless a width is given. */
export async function pngOf(pixels: Uint8Array<ArrayBuffer>, width = Math.sqrt(pixels.length / 4)): Promise<Blob> {
  const height = pixels.length / 4 / width;
  const canvas = new OffscreenCanvas(width, height);
  canvas.getContext('2d')?.putImageData(new ImageData(new Uint8ClampedArray(pixels.buffer), width, height), 0, 0);
  return canvas.convertToBlob({ type: 'image/png' });
}
