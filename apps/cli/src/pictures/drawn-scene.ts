import type { OrbitCamera } from '@brelvin/contract';
import { renderDocument, type PictureLayer, type PictureSize, type RenderedDocument, type Studio } from '@brelvin/core';
import type { Output } from '../output';
import { BadFile } from '../read-file';
import { fileAssets } from './file-assets';
import type { SceneFile } from './scene-file';

export interface SceneView {
  readonly size: PictureSize;
  /** Name of a saved view of the set. */
  readonly view?: string;
  /** In its place. */
  readonly camera?: OrbitCamera;
  /** Of the Stage's clock. */
  readonly seconds: number;
  /** What is drawn instead of a picture for eyes. */
  readonly layers?: readonly PictureLayer[];
  /** How long the passes take, in place of a picture. */
  readonly timed?: boolean;
  /** Told the part that is drawn, 0…1. */
  readonly onProgress?: (share: number) => void;
}

/** What was drawn, and whether nothing was missing; what was is told. */
export interface DrawnScene extends Pick<RenderedDocument, 'pixels' | 'layers' | 'parts' | 'times'> {
  readonly whole: boolean;
}

/** @throws BadFile where there is no picture */
export async function drawnScene(
  studio: Studio,
  scene: SceneFile,
  { size, view, camera, seconds, layers, timed, onProgress }: SceneView,
  output: Output,
): Promise<DrawnScene> {
  const { lacks, ...drawn } = await renderDocument(studio, scene, fileAssets(scene.assets), {
    size,
    seconds,
    camera: camera ?? cameraOf(scene, view),
    whole: scene.whole,
    layers,
    timed,
    onProgress,
  });
  for (const { what, name, reason } of lacks) output.err(`${scene.name}: ${what} ${name ? `“${name}”` : 'without a name'}: ${reason}`);
  if (!drawn.pixels && !drawn.layers && !drawn.times)
    throw new BadFile(`${scene.name}: there is no picture${lacks.length > 0 ? '' : ': nothing stands in the set'}.`);
  return { ...drawn, whole: lacks.length === 0 };
}

function cameraOf({ set, name }: SceneFile, view: string | undefined): SceneFile['set']['views'][string]['camera'] | undefined {
  if (view === undefined) return undefined;
  const views = Object.values(set.views);
  const found = views.find((each) => each.name === view);
  if (found) return found.camera;
  const known = views.map((each) => `“${each.name}”`).join(', ');
  throw new BadFile(`${name}: the set has no view “${view}”. ${known ? `There is ${known}.` : 'There is none.'}`);
}
