import type { MeshData } from './mesh';
import { weld } from './weld';

/** Cosine between two normals in one place below which they part visibly when vertices are moved along them: about 3°. */
const SAME = 0.9986;

/** Whether vertices in one place have different normals, so that faces meet at a sharp edge. */
export function hasSharpEdges({ positions, normals, bounds }: Pick<MeshData, 'positions' | 'normals' | 'bounds'>): boolean {
  const places = weld({ positions, bounds });
  const first = new Map<number, number>();
  for (let vertex = 0; vertex < places.length; vertex++) {
    const place = places[vertex] ?? 0;
    const other = first.get(place);
    if (other === undefined) {
      first.set(place, vertex);
      continue;
    }
    let cosine = 0;
    for (let axis = 0; axis < 3; axis++) cosine += (normals[vertex * 3 + axis] ?? 0) * (normals[other * 3 + axis] ?? 0);
    if (cosine < SAME) return true;
  }
  return false;
}
