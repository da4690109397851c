import type { Device } from '../device/device';
import type { FrameRenderer } from './frame-renderer';
import type { Picture } from './picture';
import type { PictureSize } from './picture-part';

/** Side of the Library's pictures. */
export const THUMBNAIL_SIZE = 256;
export const THUMBNAIL: PictureSize = { width: THUMBNAIL_SIZE, height: THUMBNAIL_SIZE };

/**
 * A picture that goes nowhere else, antialiased and with the background's opacity: 8-bit sRGB RGBA rows from the top.
 *
 * @param cssSize for widths that are given in CSS pixels; those of the picture when absent
 */
export async function drawnPixels(
  device: Device,
  renderer: FrameRenderer,
  picture: Picture,
  size: PictureSize,
  cssSize?: PictureSize,
): Promise<Uint8Array<ArrayBuffer>> {
  const target = device.createTexture({ ...size, format: 'rgba8unorm', samples: 1 });
  try {
    renderer.draw(picture, { size, samples: 4, target, targetSize: size, cssSize, empty: 'alpha' });
    return await device.readPixels(target);
  } finally {
    target.destroy();
  }
}
