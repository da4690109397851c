import { renderDocument, type PictureSize, type Studio } from '@brelvin/core';
import type { Output } from '../output';
import { BadFile } from '../read-file';
import { fileAssets } from './file-assets';
import type { SceneFile } from './scene-file';

export interface SceneView {
  readonly size: PictureSize;
  /** Name of a saved view of the set. */
  readonly view?: string;
  /** Of the Stage's clock. */
  readonly seconds: number;
  /** Told the part that is drawn, 0…1. */
  readonly onProgress?: (share: number) => void;
}

/** A picture, RGBA rows from the top, and whether nothing was missing; what was is told. @throws BadFile where there is none */
export async function drawnScene(
  studio: Studio,
  scene: SceneFile,
  { size, view, seconds, onProgress }: SceneView,
  output: Output,
): Promise<{ readonly pixels: Uint8Array; readonly whole: boolean }> {
  const { pixels, lacks } = await renderDocument(studio, scene, fileAssets(scene.assets), {
    size,
    seconds,
    camera: cameraOf(scene, view),
    whole: scene.whole,
    onProgress,
  });
  for (const { what, name, reason } of lacks) output.err(`${scene.name}: ${what} ${name ? `“${name}”` : 'without a name'}: ${reason}`);
  if (!pixels) throw new BadFile(`${scene.name}: there is no picture${lacks.length > 0 ? '' : ': nothing stands in the set'}.`);
  return { pixels, whole: lacks.length === 0 };
}

function cameraOf({ set, name }: SceneFile, view: string | undefined): SceneFile['set']['views'][string]['camera'] | undefined {
  if (view === undefined) return undefined;
  const views = Object.values(set.views);
  const found = views.find((each) => each.name === view);
  if (found) return found.camera;
  const known = views.map((each) => `“${each.name}”`).join(', ');
  throw new BadFile(`${name}: the set has no view “${view}”. ${known ? `There is ${known}.` : 'There is none.'}`);
}
