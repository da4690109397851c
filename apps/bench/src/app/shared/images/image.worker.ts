import { mipChain, type MipChain } from '@brelvin/core';
import { expose, transfer } from 'comlink';
import { decodeImage, inspectImage, type ImageHead } from './codecs';

/** Decodes images apart from the page. One that hangs or is no longer wanted goes with the worker. */
class ImageDecoder {
  /** Reads only the head of a file: what it is and how large. @throws Error with words for the user */
  inspect(bytes: ArrayBuffer): ImageHead {
    return inspectImage(bytes);
  }

  /** All mips of an image. @throws Error with words for the user */
  async decode(bytes: ArrayBuffer, role: 'colour' | 'data'): Promise<MipChain> {
    const { width, height, data } = await decodeImage(bytes);
    const chain = mipChain({ width, height, data: new Uint8Array(data) }, role);
    return transfer(
      chain,
      chain.levels.map((level) => level.buffer),
    );
  }
}

export type RemoteDecoder = ImageDecoder;

expose(new ImageDecoder());
