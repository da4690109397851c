import { drawnPixels, THUMBNAIL, type Device, type FrameRenderer, type Picture, type PictureSize, type StageScene } from '@brelvin/core';
import { pngOf } from '../../shared/pixels/png-of';

/** A picture at full size and antialiased, with the background's opacity, PNG. */
export async function stillOf(
  device: Device,
  renderer: FrameRenderer,
  picture: Picture,
  { size, cssSize }: { readonly size: PictureSize; readonly cssSize: PictureSize },
): Promise<Blob> {
  return pngOf(await drawnPixels(device, renderer, picture, size, cssSize), size.width);
}

/** A picture of what stands there for the Library, PNG. */
export async function thumbnailOf(
  device: Device,
  renderer: FrameRenderer,
  scene: StageScene,
  light: Pick<Picture, 'rig' | 'seconds' | 'lightSeconds'>,
): Promise<Blob> {
  const camera = scene.portrait();
  const picture = { items: scene.items(light.seconds), camera, ...light, casters: scene.casters(light.seconds) };
  return pngOf(await drawnPixels(device, renderer, picture, THUMBNAIL));
}
