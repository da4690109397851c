/** Files travel and are stored in pieces of this many bytes. */
export const CHUNK_BYTES = 1024 * 1024;
/** The largest image file that is taken, bytes. */
export const LARGEST_FILE = 64 * 1024 * 1024;
/** The longest side of an image, pixels. */
export const LARGEST_SIDE = 8192;

/** Media types of images, each with the word its content is recognised by. */
export const IMAGE_TYPES: Readonly<Record<string, string>> = { 'image/png': 'png', 'image/jpeg': 'jpg', 'image/webp': 'webp' };

/** Media types of pictures whose light goes beyond white; they surround, and are no images of a material. */
export const ENVIRONMENT_TYPES: Readonly<Record<string, string>> = { 'image/vnd.radiance': 'hdr', 'image/x-exr': 'exr' };
