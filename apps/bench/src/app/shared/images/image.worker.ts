import { IMAGE_TYPES } from '@brelvin/contract';
import { imageFacts, leavesMipsToDevice, mipChain, unpackArchive, type ImageFacts, type MipChain, type Unpacked } from '@brelvin/core';
import { expose, transfer } from 'comlink';
import { sha256Of } from '../files/sha256';
import { decodeImage, inspectImage, type ImageHead } from './codecs';

/** An image with its mips, or without them where a device makes them, and what is known of its pixels. */
export interface DecodedImage extends MipChain {
  readonly facts: ImageFacts;
}

const ENDINGS = new RegExp(`\\.(jpeg|${Object.values(IMAGE_TYPES).join('|')})$`, 'i');

/**
 * Decodes images apart from the page. One that hangs or is no longer wanted goes with the worker. Files come as blobs: their
 * bytes are read here, and not copied on the way.
 */
class ImageDecoder {
  /** What a file is and how large, by its head, and its SHA-256. @throws Error with words for the user */
  async inspect(file: Blob): Promise<ImageHead & { readonly sha256: string }> {
    const bytes = await file.arrayBuffer();
    return { ...inspectImage(bytes), sha256: await sha256Of(bytes) };
  }

  /** An image for a device. @throws Error with words for the user */
  async decode(file: Blob, role: 'colour' | 'data'): Promise<DecodedImage> {
    const { width, height, data } = await decodeImage(await file.arrayBuffer());
    // A large image is not copied, unless it lies in the decoder's own memory.
    const own = data.byteLength === data.buffer.byteLength ? data : data.slice();
    const pixels = { width, height, data: new Uint8Array(own.buffer) };
    const facts = imageFacts(pixels);
    const opaque = facts.even[3] === 1;
    const chain = leavesMipsToDevice(pixels, role, opaque) ? { width, height, levels: [pixels.data] } : mipChain(pixels, role);
    return transfer(
      { ...chain, facts },
      chain.levels.map((level) => level.buffer),
    );
  }

  /** The images of a zip archive. @throws Error with words for the user */
  unpack(bytes: ArrayBuffer): Unpacked {
    const unpacked = unpackArchive(new Uint8Array(bytes), (name) => ENDINGS.test(name));
    return transfer(
      unpacked,
      unpacked.files.map((file) => file.bytes.buffer),
    );
  }
}

export type RemoteDecoder = ImageDecoder;

expose(new ImageDecoder());
