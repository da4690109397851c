import type { Device } from '../device/device';
import type { FrameRenderer } from './frame-renderer';
import type { Picture } from './picture';

export const THUMBNAIL_SIZE = 256;

/** A small square picture: 8-bit sRGB RGBA rows from the top. */
export async function drawThumbnail(device: Device, renderer: FrameRenderer, picture: Picture): Promise<Uint8Array<ArrayBuffer>> {
  const size = { width: THUMBNAIL_SIZE, height: THUMBNAIL_SIZE };
  const target = device.createTexture({ ...size, format: 'rgba8unorm', samples: 1 });
  try {
    renderer.draw(picture, { size, samples: 4, target, targetSize: size, empty: 'alpha' });
    return await device.readPixels(target);
  } finally {
    target.destroy();
  }
}
