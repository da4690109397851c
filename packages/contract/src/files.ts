/** Files travel and are stored in pieces of this many bytes. */
export const CHUNK_BYTES = 1024 * 1024;
/** The largest image file that is taken, bytes. */
export const LARGEST_FILE = 64 * 1024 * 1024;
/** The largest mesh file that is taken, bytes. */
export const LARGEST_MESH_FILE = 512 * 1024 * 1024;
/** The longest side of an image, pixels. */
export const LARGEST_SIDE = 8192;

/** Media types of images, each with the word its content is recognised by. */
export const IMAGE_TYPES: Readonly<Record<string, string>> = { 'image/png': 'png', 'image/jpeg': 'jpg', 'image/webp': 'webp' };
/** Media types of pictures whose light goes beyond white; they surround, and are no images of a material. */
export const ENVIRONMENT_TYPES: Readonly<Record<string, string>> = { 'image/vnd.radiance': 'hdr', 'image/x-exr': 'exr' };
/** Media type of a mesh as the workspace keeps it. */
export const MESH_TYPE = 'model/vnd.brelvin-mesh';

/** What files are for, with the media types that are. */
export const FILE_USES = {
  image: Object.keys(IMAGE_TYPES),
  environment: Object.keys(ENVIRONMENT_TYPES),
  mesh: [MESH_TYPE],
} as const;
export type FileUse = keyof typeof FILE_USES;

/** Bytes that a file of a media type may have. */
export function mostBytesOf(type: string): number {
  return type === MESH_TYPE ? LARGEST_MESH_FILE : LARGEST_FILE;
}
