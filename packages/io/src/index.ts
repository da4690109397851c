/** What needs a library to be read, the same in page workers, on the server and on the command line. */

export { AsyncCache } from './async-cache';
export { BINARIES, type Binaries } from './binaries';
export { sha256Of } from './sha256';

// Images.
export { ImageCodecs } from './images/codecs';
export { decodeImage, type DecodedImage } from './images/decoded-image';
export { endingOf } from './images/file-kinds';
export { type ImageHead, inspectImage } from './images/image-head';

// Environments.
export { type EnvironmentFile, readEnvironment } from './environments/read-environment';
export { ExrReader } from './environments/read-exr';
export { type ExrLayer, ExrWriter } from './environments/write-exr';

// Meshes and what they wear.
export type { MeshFile } from './meshes/read-gltf';
export { meshOfField, readMesh, type ReadMesh } from './meshes/read-mesh';
