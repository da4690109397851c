import { drawThumbnail, type Device, type FrameRenderer, type Picture, type PictureSize, type StageScene } from '@brelvin/core';
import { pngOf } from '../../shared/pixels/png-of';

/** A picture at full size and antialiased, with the background's opacity, PNG. */
export async function stillOf(
  device: Device,
  renderer: FrameRenderer,
  picture: Picture,
  { size, cssSize }: { readonly size: PictureSize; readonly cssSize: PictureSize },
): Promise<Blob> {
  const target = device.createTexture({ ...size, format: 'rgba8unorm', samples: 1 });
  try {
    renderer.draw(picture, { size, samples: 4, target, targetSize: size, cssSize, empty: 'alpha' });
    return await pngOf(await device.readPixels(target), size.width);
  } finally {
    target.destroy();
  }
}

/** A picture of what stands there for the Library, PNG. */
export async function thumbnailOf(
  device: Device,
  renderer: FrameRenderer,
  scene: StageScene,
  light: Pick<Picture, 'rig' | 'seconds' | 'lightSeconds'>,
): Promise<Blob> {
  const camera = scene.portrait();
  const items = scene.items(light.seconds);
  return pngOf(await drawThumbnail(device, renderer, { items, camera, ...light, casters: scene.casters(light.seconds) }));
}
