import type { MeshData } from './mesh';
import { weld } from './weld';

/**
 * Normals that all vertices in one place share, object space, unit length: means of those of the faces round the place,
 * weighted by angle (Thürmer and Wüthrich 1998, "Computing vertex normals from polygonal facets", Journal of Graphics Tools
 * 3(1)). A place without a face of any area keeps the vertex's own normal.
 */
export function weldedNormals(mesh: Pick<MeshData, 'positions' | 'normals' | 'indices' | 'bounds'>): Float32Array<ArrayBuffer> {
  const { positions, normals, indices } = mesh;
  const places = weld(mesh);
  const sums = new Float64Array(positions.length);
  const [sides, lengths] = [new Float64Array(9), new Float64Array(3)];
  for (let at = 0; at < indices.length; at += 3) {
    for (let corner = 0; corner < 3; corner++) {
      const [from, to] = [(indices[at + corner] ?? 0) * 3, (indices[at + ((corner + 1) % 3)] ?? 0) * 3];
      let square = 0;
      for (let axis = 0; axis < 3; axis++) {
        const step = (positions[to + axis] ?? 0) - (positions[from + axis] ?? 0);
        sides[corner * 3 + axis] = step;
        square += step * step;
      }
      lengths[corner] = Math.sqrt(square);
    }
    const [x0 = 0, y0 = 0, z0 = 0, x1 = 0, y1 = 0, z1 = 0] = sides;
    const normal = [y0 * z1 - z0 * y1, z0 * x1 - x0 * z1, x0 * y1 - y0 * x1];
    const area = Math.hypot(...normal);
    if (!(area > 0)) continue;
    for (let corner = 0; corner < 3; corner++) {
      const angle = angleAt(sides, lengths, corner);
      const place = (places[indices[at + corner] ?? 0] ?? 0) * 3;
      for (let axis = 0; axis < 3; axis++) sums[place + axis] = (sums[place + axis] ?? 0) + ((normal[axis] ?? 0) / area) * angle;
    }
  }
  const welded = new Float32Array(positions.length);
  for (let vertex = 0; vertex < places.length; vertex++) {
    const place = (places[vertex] ?? 0) * 3;
    const length = Math.hypot(sums[place] ?? 0, sums[place + 1] ?? 0, sums[place + 2] ?? 0);
    for (let axis = 0; axis < 3; axis++)
      welded[vertex * 3 + axis] = length > 1e-9 ? (sums[place + axis] ?? 0) / length : (normals[vertex * 3 + axis] ?? 0);
  }
  return welded;
}

/** Radians between the side that leaves a corner and the one that arrives there. */
function angleAt(sides: Float64Array, lengths: Float64Array, corner: number): number {
  const before = (corner + 2) % 3;
  let dot = 0;
  for (let axis = 0; axis < 3; axis++) dot -= (sides[corner * 3 + axis] ?? 0) * (sides[before * 3 + axis] ?? 0);
  const both = (lengths[corner] ?? 0) * (lengths[before] ?? 0);
  return both > 0 ? Math.acos(Math.min(Math.max(dot / both, -1), 1)) : 0;
}
