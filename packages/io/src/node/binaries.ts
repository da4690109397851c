import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import type { BinaryName } from '../binaries';

const require = createRequire(import.meta.url);

const PATHS: Readonly<Record<BinaryName, string>> = {
  png: '@jsquash/png/codec/pkg/squoosh_png_bg.wasm',
  jpg: '@jsquash/jpeg/codec/dec/mozjpeg_dec.wasm',
  webp: '@jsquash/webp/codec/dec/webp_dec.wasm',
  exr: 'exrs/node_modules/exrs-raw-wasm-bindgen/exrs_raw_wasm_bindgen_bg.wasm',
};

/** Decoders' binaries out of their packages, for the server and the command line. */
export async function nodeBinaries(name: BinaryName): Promise<WebAssembly.Module> {
  return WebAssembly.compile(await readFile(require.resolve(PATHS[name])));
}
