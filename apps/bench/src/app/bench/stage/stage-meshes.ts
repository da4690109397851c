import type { OrbitCamera } from '@brelvin/contract';
import { START_CAMERA, type MeshRecipe } from '@brelvin/core';

/** What small pictures of outlets are drawn on, and from where. */
export const PREVIEW_MESH: MeshRecipe = { shape: 'sphere', numbers: { radius: 1, segments: 32, rings: 24 }, smooth: true };
export const PREVIEW_CAMERA: OrbitCamera = {
  ...START_CAMERA,
  target: [0, 0, 0],
  azimuth: 0.5,
  elevation: 0.35,
  fieldOfView: 0.4,
  distance: 5.3,
};
/** What a new program is drawn on first. */
export const WARM_UP_MESH: MeshRecipe = { shape: 'sphere', numbers: { segments: 12, rings: 6 }, smooth: true };
