import { imageFacts, leavesMipsToDevice, mipChain, type ImageFacts, type MipChain } from '@brelvin/core';
import type { ImageCodecs } from './codecs';

/** An image with its mips, or without them where a device makes them, and what is known of its pixels. */
export interface DecodedImage extends MipChain {
  readonly facts: ImageFacts;
}

/** An image for a device. @throws Error with words for the user */
export async function decodeImage(codecs: ImageCodecs, bytes: ArrayBuffer, role: 'colour' | 'data'): Promise<DecodedImage> {
  const { width, height, data } = await codecs.decode(bytes);
  // A large image is not copied, unless it lies in the decoder's own memory.
  const own = data.byteLength === data.buffer.byteLength ? data : data.slice();
  const pixels = { width, height, data: new Uint8Array(own.buffer as ArrayBuffer) };
  const facts = imageFacts(pixels);
  const opaque = facts.even[3] === 1;
  const chain = leavesMipsToDevice(pixels, role, opaque) ? { width, height, levels: [pixels.data] } : mipChain(pixels, role);
  return { ...chain, facts };
}
