/** Files of WebAssembly that decoders are made of, by what they decode. */
export const BINARIES = {
  png: 'squoosh_png_bg.wasm',
  jpg: 'mozjpeg_dec.wasm',
  webp: 'webp_dec.wasm',
  exr: 'exrs_raw_wasm_bindgen_bg.wasm',
} as const;
export type BinaryName = keyof typeof BINARIES;

/** Where a host has them: a page fetches them, Node reads them. */
export type Binaries = (name: BinaryName) => Promise<WebAssembly.Module>;
