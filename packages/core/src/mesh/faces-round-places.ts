import type { MeshData } from './mesh';
import { addAt, dotAt, lengthAt, makeUnit, putCross, putStep } from './rows';

/** What is left by rounding of unit vectors that take each other away. */
export const NO_WAY = 1e-9;

/** A mesh's triangles between places, in rows; those with two corners in one place, as at the poles of a sphere, are left out. */
export interface Faces {
  readonly count: number;
  /** How many places there are. */
  readonly places: number;
  /** Vertices and places of their corners, three a face. */
  readonly vertices: Uint32Array;
  readonly corners: Uint32Array;
  /** Object space, of unit length, x y z a face; zeros where it has no area. */
  readonly normals: Float64Array;
  /** Radians at their corners, three a face. */
  readonly angles: Float64Array;
}

/** @param places of vertices, see `weld` */
export function facesOf({ positions, indices }: Pick<MeshData, 'positions' | 'indices'>, places: Uint32Array): Faces {
  const [vertices, corners] = [new Uint32Array(indices.length), new Uint32Array(indices.length)];
  const [normals, angles] = [new Float64Array(indices.length), new Float64Array(indices.length)];
  const sides = new Float64Array(9);
  let count = 0;
  for (let at = 0; at < indices.length; at += 3) {
    const to = count * 3;
    for (let corner = 0; corner < 3; corner++) {
      vertices[to + corner] = indices[at + corner] ?? 0;
      corners[to + corner] = places[indices[at + corner] ?? 0] ?? 0;
    }
    if (corners[to] === corners[to + 1] || corners[to + 1] === corners[to + 2] || corners[to] === corners[to + 2]) continue;
    for (let corner = 0; corner < 3; corner++)
      putStep(sides, corner * 3, positions, vertices[to + corner] ?? 0, vertices[to + ((corner + 1) % 3)] ?? 0, 3);
    putCross(normals, to, sides, 0, sides, 3);
    makeUnit(normals, to);
    for (let corner = 0; corner < 3; corner++) {
      const [leaving, arriving] = [corner * 3, ((corner + 2) % 3) * 3];
      const both = lengthAt(sides, leaving) * lengthAt(sides, arriving);
      angles[to + corner] = both > 0 ? Math.acos(Math.min(Math.max(-dotAt(sides, leaving, sides, arriving) / both, -1), 1)) : 0;
    }
    count++;
  }
  let most = 0;
  for (const place of places) most = Math.max(most, place + 1);
  return { count, places: most, vertices, corners, normals, angles };
}

/**
 * Of each place the mean of the normals of the faces round it, weighted by angle (Thürmer and Wüthrich 1998, "Computing
 * vertex normals from polygonal facets", Journal of Graphics Tools 3(1)): x y z a place, of unit length, zeros where faces
 * take each other away.
 */
export function placeNormals({ count, places, corners, normals, angles }: Faces): Float64Array {
  const sums = new Float64Array(places * 3);
  for (let corner = 0; corner < count * 3; corner++) {
    const [to, from] = [(corners[corner] ?? 0) * 3, corner - (corner % 3)];
    for (let axis = 0; axis < 3; axis++) addAt(sums, to + axis, (normals[from + axis] ?? 0) * (angles[corner] ?? 0));
  }
  for (let at = 0; at < sums.length; at += 3) makeUnit(sums, at, NO_WAY);
  return sums;
}
