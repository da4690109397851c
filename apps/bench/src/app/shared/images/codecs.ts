import { IMAGE_TYPES, LARGEST_SIDE } from '@brelvin/contract';
import decodeJpeg, { init as initJpeg } from '@jsquash/jpeg/decode.js';
import { decode as decodePng, init as initPng } from '@jsquash/png/decode.js';
import decodeWebp, { init as initWebp } from '@jsquash/webp/decode.js';
import { imageSize } from 'image-size';
import { decodedByBrowser } from './browser-decoder';

type Kind = 'png' | 'jpg' | 'webp';

const codec = (file: string): Promise<WebAssembly.Module> => WebAssembly.compileStreaming(fetch(`/codecs/${file}`));

const starts: Readonly<Record<Kind, () => Promise<unknown>>> = {
  png: async () => initPng(await codec('squoosh_png_bg.wasm')),
  jpg: async () => initJpeg(await codec('mozjpeg_dec.wasm')),
  webp: async () => initWebp(await codec('webp_dec.wasm')),
};
const started = new Map<Kind, Promise<unknown>>();

const decoders: Readonly<Record<Kind, (bytes: ArrayBuffer) => Promise<ImageData>>> = {
  png: async (bytes) => decodePng(bytes),
  jpg: async (bytes) => decodeJpeg(bytes),
  webp: async (bytes) => decodeWebp(bytes),
};

export interface ImageHead {
  readonly width: number;
  readonly height: number;
  /** Media type. */
  readonly type: string;
}

/** Reads only the head of a file: what it is and how large. @throws Error with words for the user */
export function inspectImage(bytes: ArrayBuffer): ImageHead {
  let found: { width?: number; height?: number; type?: string };
  try {
    found = imageSize(new Uint8Array(bytes));
  } catch {
    throw new Error('It is no PNG, JPEG or WebP image, or its beginning is damaged.');
  }
  const { width = 0, height = 0, type } = found;
  const media = Object.entries(IMAGE_TYPES).find(([, name]) => name === type)?.[0];
  if (!media) throw new Error(`It is a ${(type ?? 'file of another kind').toUpperCase()}; PNG, JPEG and WebP are taken.`);
  if (width < 1 || height < 1 || width > LARGEST_SIDE || height > LARGEST_SIDE)
    throw new Error(`It claims ${width} × ${height} pixels; at most ${LARGEST_SIDE} × ${LARGEST_SIDE} are taken. Make it smaller.`);
  return { width, height, type: media };
}

/** Eight-bit RGBA of an image: by the browser's own decoder where that gives the same, which is quicker. @throws Error with words for the user */
export async function decodeImage(bytes: ArrayBuffer): Promise<ImageData> {
  const { type, width, height } = inspectImage(bytes);
  const kind = IMAGE_TYPES[type] as Kind;
  const quick = await decodedByBrowser(bytes, type).catch(() => undefined);
  if (quick?.width === width && quick.height === height) return quick;
  if (!started.has(kind)) started.set(kind, starts[kind]());
  await started.get(kind);
  const pixels = await decoders[kind](bytes).catch(() => {
    throw new Error('It can not be decoded: the file is damaged or cut off.');
  });
  if (pixels.width !== width || pixels.height !== height) throw new Error('It can not be decoded: its size is not what its head says.');
  return pixels;
}
