/** Where a PNG says how many bits a channel has (PNG, Third Edition, section 11.2.1). */
const PNG_BITS = 24;
/** Pixels as they were stored: neither planes of another colour space nor more than eight bits. */
const STORED = new Set(['RGBA', 'RGBX', 'BGRA', 'BGRX']);

/**
 * Eight-bit RGBA of an opaque PNG as it was stored, by the browser's own decoder, without a conversion of colours. Where
 * there is alpha, colours were multiplied by it on the way and are not those stored any more.
 *
 * @returns nothing where the browser cannot, or would give other numbers than those stored
 */
export async function decodedByBrowser(bytes: ArrayBuffer, type: string): Promise<ImageData | undefined> {
  if (type !== 'image/png' || typeof ImageDecoder === 'undefined') return undefined;
  if ((new Uint8Array(bytes)[PNG_BITS] ?? 16) > 8) return undefined;
  const decoder = new ImageDecoder({ type, data: bytes, colorSpaceConversion: 'none' });
  try {
    const { image } = await decoder.decode();
    const { codedWidth: width, codedHeight: height, format } = image;
    try {
      if (!STORED.has(format ?? '')) return undefined;
      const pixels = new ImageData(width, height);
      await image.copyTo(pixels.data, { format: 'RGBA' });
      return isOpaque(pixels.data) ? pixels : undefined;
    } finally {
      image.close();
    }
  } finally {
    decoder.close();
  }
}

function isOpaque(data: Uint8ClampedArray): boolean {
  for (let at = 3; at < data.length; at += 4) if (data[at] !== 255) return false;
  return true;
}
