import { IMAGE_TYPES } from '@brelvin/contract';
import { unpackArchive, type Unpacked } from '@brelvin/core';
import { decodeImage, inspectImage, sha256Of, type DecodedImage, type ImageHead } from '@brelvin/io';
import { expose, transfer } from 'comlink';
import { pageCodecs } from './page-codecs';

const ENDINGS = new RegExp(`\\.(jpeg|${Object.values(IMAGE_TYPES).join('|')})$`, 'i');

/**
 * Decodes images apart from the page. One that hangs or is no longer wanted goes with the worker. Files come as blobs: their
 * bytes are read here, and not copied on the way.
 */
class ImageDecoder {
  private readonly codecs = pageCodecs();

  /** What a file is and how large, by its head, and its SHA-256. @throws Error with words for the user */
  async inspect(file: Blob): Promise<ImageHead & { readonly sha256: string }> {
    const bytes = await file.arrayBuffer();
    return { ...inspectImage(bytes), sha256: await sha256Of(bytes) };
  }

  /** An image for a device. @throws Error with words for the user */
  async decode(file: Blob, role: 'colour' | 'data'): Promise<DecodedImage> {
    const image = await decodeImage(this.codecs, await file.arrayBuffer(), role);
    return transfer(
      image,
      image.levels.map((level) => level.buffer),
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
