import type { FloatPicture } from '../../float-picture';
import { panoramaDirection } from '../directions';
import { loftWindow } from './loft-window';
import { nightHarbour } from './night-harbour';
import { quayAtDusk } from './quay-at-dusk';
import type { Sky } from './sky-parts';

export const GENERATED_ENVIRONMENTS = ['loft-window', 'quay-at-dusk', 'night-harbour'] as const;
export type GeneratedEnvironment = (typeof GENERATED_ENVIRONMENTS)[number];

const SKIES: Readonly<Record<GeneratedEnvironment, Sky>> = {
  'loft-window': loftWindow,
  'quay-at-dusk': quayAtDusk,
  'night-harbour': nightHarbour,
};

/** A panorama of one of the lantern loft's environments. */
export function generatedEnvironment(name: GeneratedEnvironment, width = 1024): FloatPicture {
  return panoramaOf(SKIES[name], width);
}

/** A panorama of a sky, twice as wide as high. */
export function panoramaOf(sky: Sky, width: number): FloatPicture {
  const height = width / 2;
  const data = new Float32Array(width * height * 3);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) data.set(sky(panoramaDirection((x + 0.5) / width, (y + 0.5) / height)), (y * width + x) * 3);
  return { width, height, data };
}
