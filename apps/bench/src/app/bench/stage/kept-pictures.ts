import {
  drawLargePicture,
  drawnPixels,
  THUMBNAIL,
  type Device,
  type FrameRenderer,
  type Picture,
  type PictureSize,
  type PictureTile,
  type StageScene,
  type TileReceiver,
} from '@brelvin/core';
import { pngOf } from '../../shared/pixels/png-of';

/** A still as it is wanted. */
export interface StillWish {
  readonly size: PictureSize;
  /** Nothing is behind the meshes, whatever the rig has there. */
  readonly transparent?: boolean;
  /** @returns whether the rest is still wanted */
  readonly goesOn?: TileReceiver['goesOn'];
}

/**
 * A picture of any size and antialiased, with the background's opacity, PNG; nothing when it was given up.
 *
 * @param cssSize for widths that are given in CSS pixels
 * @throws Error when the browser has no room for it
 */
export async function stillOf(
  device: Device,
  renderer: FrameRenderer,
  picture: Picture,
  { size, transparent, goesOn = () => true }: StillWish,
  cssSize: PictureSize,
): Promise<Blob | undefined> {
  const canvas = new OffscreenCanvas(size.width, size.height);
  const context = canvas.getContext('2d', { willReadFrequently: true });
  if (!context) throw new Error('The browser has no room for a picture of this size.');
  const put = ({ x, y, width, height, pixels }: PictureTile): void =>
    context.putImageData(new ImageData(new Uint8ClampedArray(pixels.buffer), width, height), x, y);
  const seen = transparent ? { ...picture, rig: { ...picture.rig, transparent } } : picture;
  const whole = await drawLargePicture(device, renderer, seen, { size, cssSize }, { put, goesOn });
  return whole ? canvas.convertToBlob({ type: 'image/png' }) : undefined;
}

/** A picture for the Library, PNG: of what wears the material on the Bench, or of the whole set. */
export async function thumbnailOf(
  device: Device,
  renderer: FrameRenderer,
  scene: StageScene,
  light: Pick<Picture, 'rig' | 'seconds' | 'lightSeconds'>,
  whole: boolean,
): Promise<Blob> {
  const camera = whole ? scene.wholeView() : scene.portrait();
  const picture = { items: scene.items(light.seconds), camera, ...light, casters: scene.casters(light.seconds) };
  return pngOf(await drawnPixels(device, renderer, picture, THUMBNAIL));
}
