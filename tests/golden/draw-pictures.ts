import type { Material, StageSet } from '@brelvin/contract';
import { DEMO_DOCUMENTS, THUMBNAIL_SIZE } from '@brelvin/core';
import { demo, drawScene, easel } from './draw-demos';
import { pngText } from './png-text';

/** PNG files as base64, by the demo material's id: each on the set and under the rig in which it was last seen, as lists show it. */
export async function run(): Promise<Record<string, string>> {
  const studio = easel();
  const pictures: Record<string, string> = {};
  for (const { id, document } of DEMO_DOCUMENTS) {
    if (document.format !== 'brelvin-material') continue;
    const { seenIn } = demo<Material>(id);
    const { pixels } = await drawScene(studio, id, demo<StageSet>(seenIn.set ?? ''), seenIn.rig ?? '', THUMBNAIL_SIZE);
    const canvas = new OffscreenCanvas(THUMBNAIL_SIZE, THUMBNAIL_SIZE);
    const image = new ImageData(new Uint8ClampedArray(pixels.buffer), THUMBNAIL_SIZE, THUMBNAIL_SIZE);
    canvas.getContext('2d')?.putImageData(image, 0, 0);
    pictures[id] = await pngText(canvas);
  }
  return pictures;
}
