import { demoScenes, THUMBNAIL_SIZE } from '@brelvin/core';
import { drawScene } from './draw-demos';
import { easel } from './easel';
import { pngText } from './png-text';

/** PNG files as base64, by the demo document's id, as lists show it. */
export async function run(): Promise<Record<string, string>> {
  const studio = await easel();
  const pictures: Record<string, string> = {};
  for (const scene of demoScenes()) {
    const { pixels } = await drawScene(studio, scene, THUMBNAIL_SIZE);
    const canvas = new OffscreenCanvas(THUMBNAIL_SIZE, THUMBNAIL_SIZE);
    const image = new ImageData(new Uint8ClampedArray(pixels.buffer), THUMBNAIL_SIZE, THUMBNAIL_SIZE);
    canvas.getContext('2d')?.putImageData(image, 0, 0);
    pictures[scene.id] = await pngText(canvas);
  }
  return pictures;
}
