import { BINARIES, ExrReader, ImageCodecs, type Binaries } from '@brelvin/io';
import { decodedByBrowser } from './browser-decoder';

const pageBinaries: Binaries = (name) => WebAssembly.compileStreaming(fetch(`/codecs/${BINARIES[name]}`));

/** Decoders of a worker of the page. */
export const pageCodecs = (): ImageCodecs => new ImageCodecs(pageBinaries, decodedByBrowser);
export const pageExr = (): ExrReader => new ExrReader(pageBinaries);
