import { facesOf, placeNormals } from './faces-round-places';
import type { MeshData } from './mesh';
import { weld } from './weld';

/**
 * Normals that all vertices in one place share, object space, unit length: means of those of the faces round the place,
 * see `placeNormals`. A place without a face of any area keeps the vertex's own normal.
 */
export function weldedNormals(mesh: Pick<MeshData, 'positions' | 'normals' | 'indices' | 'bounds'>): Float32Array<ArrayBuffer> {
  const { positions, normals } = mesh;
  const places = weld(mesh);
  const shared = placeNormals(facesOf(mesh, places));
  const welded = new Float32Array(positions.length);
  for (let vertex = 0; vertex < places.length; vertex++) {
    const place = (places[vertex] ?? 0) * 3;
    const none = !shared[place] && !shared[place + 1] && !shared[place + 2];
    for (let axis = 0; axis < 3; axis++) welded[vertex * 3 + axis] = (none ? normals[vertex * 3 + axis] : shared[place + axis]) ?? 0;
  }
  return welded;
}
