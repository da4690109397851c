import start, {
  CompressionMethod,
  ExrEncoder,
  SamplePrecision,
  type InitOutput,
} from 'exrs/node_modules/exrs-raw-wasm-bindgen/exrs_raw_wasm_bindgen.js';
import type { Binaries } from '../binaries';

/** One of the pictures of a file. */
export interface ExrLayer {
  /** Stands before the names of its channels; of the picture itself nothing does. */
  readonly name?: string;
  /** Of each pixel, in their order. */
  readonly channels: readonly string[];
  /** Scene-linear rows from the top. */
  readonly values: Float32Array;
}

/** Writes OpenEXR: 32-bit floats, compressed without loss; layers by the names of their channels, as the format has it. */
export class ExrWriter {
  private started?: Promise<InitOutput>;

  constructor(private readonly binaries: Binaries) {}

  async write(width: number, height: number, layers: readonly ExrLayer[]): Promise<Uint8Array> {
    await (this.started ??= this.binaries('exr').then((binary) => start({ module_or_path: binary })));
    const names = layers.flatMap(({ name, channels }) => channels.map((each) => (name === undefined ? each : `${name}.${each}`)));
    const encoder = new ExrEncoder(width, height);
    try {
      encoder.addLayer(undefined, names, interleaved(width * height, layers), SamplePrecision.F32, CompressionMethod.Zip16);
      return encoder.encode();
    } finally {
      encoder.free();
    }
  }
}

function interleaved(pixels: number, layers: readonly ExrLayer[]): Float32Array {
  const stride = layers.reduce((sum, { channels }) => sum + channels.length, 0);
  const all = new Float32Array(pixels * stride);
  let first = 0;
  for (const { channels, values } of layers) {
    const { length } = channels;
    for (let pixel = 0; pixel < pixels; pixel++)
      for (let channel = 0; channel < length; channel++) all[pixel * stride + first + channel] = values[pixel * length + channel] ?? 0;
    first += length;
  }
  return all;
}
