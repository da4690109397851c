import { boundsOf } from '../mesh/mesh';
import type { Corners } from './corners';
import { faceNormal } from './make-normals';

/** The side of a box that a normal faces most: +x −x +y −y +z −z. */
function sideOf([x, y, z]: readonly number[]): number {
  const [a, b, c] = [Math.abs(x ?? 0), Math.abs(y ?? 0), Math.abs(z ?? 0)];
  if (a >= b && a >= c) return (x ?? 0) >= 0 ? 0 : 1;
  if (b >= c) return (y ?? 0) >= 0 ? 2 : 3;
  return (z ?? 0) >= 0 ? 4 : 5;
}

/** Right and down as seen from outside, for each side. */
const RIGHT = [
  [2, -1],
  [2, 1],
  [0, 1],
  [0, 1],
  [0, 1],
  [0, -1],
] as const;
const DOWN = [
  [1, -1],
  [1, -1],
  [2, 1],
  [2, -1],
  [1, -1],
  [1, -1],
] as const;

/** UVs for a mesh without: a box wrapped round it, each side with the whole picture, none of them mirrored. */
export function makeUvs(corners: Corners): void {
  const sides = Int32Array.from({ length: corners.indices.length / 3 }, (_, triangle) =>
    sideOf(faceNormal(corners.get('positions'), corners.indices, triangle * 3)),
  );
  corners.split(sides);
  const positions = corners.get('positions');
  const { low, high } = boundsOf(positions);
  const size = Math.max(...high.map((each, axis) => each - (low[axis] ?? 0)), 1e-9);
  const uvs = new Float32Array(corners.count * 2);
  sides.forEach((side, triangle) => {
    for (let corner = 0; corner < 3; corner++) {
      const vertex = corners.indices[triangle * 3 + corner] ?? 0;
      const along = ([axis, way]: readonly [number, number]): number => {
        const middle = ((low[axis] ?? 0) + (high[axis] ?? 0)) / 2;
        return 0.5 + (way * ((positions[vertex * 3 + axis] ?? 0) - middle)) / size;
      };
      uvs.set([along(RIGHT[side] ?? [0, 1]), along(DOWN[side] ?? [1, -1])], vertex * 2);
    }
  });
  corners.set('uvs', 2, uvs);
}
