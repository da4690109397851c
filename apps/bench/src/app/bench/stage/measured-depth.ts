import type { OrbitCamera } from '@brelvin/contract';
import { eyePosition, type Inspection, type StageScene } from '@brelvin/core';

/** How a picture is taken apart: depth goes from the nearest to the farthest of what stands there. */
export function measured(inspection: Inspection, scene: StageScene, camera: OrbitCamera): Inspection {
  if (inspection.view !== 'depth') return inspection;
  const points = scene.outline();
  let [nearest, farthest] = [Infinity, 0];
  const eye = eyePosition(camera);
  for (let at = 0; at < points.length; at += 3) {
    const away = Math.hypot(...eye.map((each, axis) => each - (points[at + axis] ?? 0)));
    [nearest, farthest] = [Math.min(nearest, away), Math.max(farthest, away)];
  }
  return { ...inspection, nearest, farthest };
}
