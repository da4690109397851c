import { viewMatrix } from '../scene/camera';
import type { OrbitCamera } from '../scene/camera';

/** Metres at which nothing stands: farther than the camera goes, and still a half float. */
export const FAR_AWAY = 6e4;

/** What is seen at each pixel: what is nearest in its middle, glass as well as what hides. Rows from the top. */
export interface SeenRecord {
  /** Metres from the plane of the eye; infinite where nothing stands. */
  readonly depths: Float32Array<ArrayBuffer>;
  /** Unit vectors of world space, three numbers a pixel; 0 0 0 where nothing stands. */
  readonly normals: Float32Array<ArrayBuffer>;
  /** Which of the drawn items, from 1; 0 where nothing stands. */
  readonly numbers: Float32Array<ArrayBuffer>;
}

/**
 * @param distances as `scene_distance` gives them: depth, then the normal in view space
 * @param marks as `edge_surface` gives them, whose last number is −1 of the first item, −2 of the second
 */
export function seenRecord(camera: OrbitCamera, distances: Float32Array, marks: Float32Array): SeenRecord {
  const pixels = distances.length / 4;
  const depths = new Float32Array(pixels);
  const normals = new Float32Array(pixels * 3);
  const numbers = new Float32Array(pixels);
  // Of a matrix that only turns, the rows are the columns of what undoes it.
  const view = viewMatrix(camera);
  for (let pixel = 0; pixel < pixels; pixel++) {
    const [depth = 0, x = 0, y = 0, z = 0] = distances.subarray(pixel * 4, pixel * 4 + 4);
    const isThere = depth < FAR_AWAY;
    depths[pixel] = isThere ? depth : Infinity;
    numbers[pixel] = Math.max(0, Math.round(-(marks[pixel * 4 + 3] ?? 0)));
    if (!isThere) continue;
    for (let axis = 0; axis < 3; axis++)
      normals[pixel * 3 + axis] = (view[axis * 4] ?? 0) * x + (view[axis * 4 + 1] ?? 0) * y + (view[axis * 4 + 2] ?? 0) * z;
  }
  return { depths, normals, numbers };
}
