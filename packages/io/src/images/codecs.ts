import { IMAGE_TYPES } from '@brelvin/contract';
import decodeJpeg, { init as initJpeg } from '@jsquash/jpeg/decode.js';
import { decode as decodePng, init as initPng } from '@jsquash/png/decode.js';
import decodeWebp, { init as initWebp } from '@jsquash/webp/decode.js';
import type { Binaries } from '../binaries';
import { inspectImage } from './image-head';

type Kind = 'png' | 'jpg' | 'webp';

/** Eight-bit RGBA as it is stored, rows from the top. */
export interface StoredPixels {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8ClampedArray;
}

/** A decoder of the host's own, where it has a quicker one that gives the same numbers; nothing where it has not. */
export type QuickDecoder = (bytes: ArrayBuffer, type: string) => Promise<StoredPixels | undefined>;

const decoders: Readonly<Record<Kind, (bytes: ArrayBuffer) => Promise<StoredPixels>>> = {
  png: async (bytes) => decodePng(bytes),
  jpg: async (bytes) => decodeJpeg(bytes),
  webp: async (bytes) => decodeWebp(bytes),
};

/** Decoders of PNG, JPEG and WebP, each started when it is first needed. */
export class ImageCodecs {
  private readonly started = new Map<Kind, Promise<unknown>>();

  constructor(
    private readonly binaries: Binaries,
    private readonly quick: QuickDecoder = async () => undefined,
  ) {}

  /** @throws Error with words for the user */
  async decode(bytes: ArrayBuffer): Promise<StoredPixels> {
    const { type, width, height } = inspectImage(bytes);
    const kind = IMAGE_TYPES[type] as Kind;
    const quick = await this.quick(bytes, type).catch(() => undefined);
    if (quick?.width === width && quick.height === height) return quick;
    await this.start(kind);
    const pixels = await decoders[kind](bytes).catch(() => {
      throw new Error('It cannot be decoded: the file is damaged or cut off.');
    });
    if (pixels.width !== width || pixels.height !== height) throw new Error('It cannot be decoded: its size is not what its head says.');
    return pixels;
  }

  private start(kind: Kind): Promise<unknown> {
    let started = this.started.get(kind);
    if (!started) this.started.set(kind, (started = this.begin(kind)));
    return started;
  }

  private async begin(kind: Kind): Promise<void> {
    const binary = await this.binaries(kind);
    // A decoder is there once for everybody in this thread.
    if (kind === 'png') await initPng(binary);
    else if (kind === 'jpg') await initJpeg(binary);
    else await initWebp(binary);
  }
}
