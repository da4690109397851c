import type { MeshData } from './mesh';
import { weld } from './weld';

/**
 * Gives vertices that are meant to be in one place exactly one place: sines of a whole turn are not quite 0, and between
 * neighbours that are not quite in one place single pixels show what is behind.
 */
export function meet(mesh: MeshData): MeshData {
  const { positions } = mesh;
  const places = weld(mesh);
  const first = new Map<number, number>();
  for (let vertex = 0; vertex < places.length; vertex++) {
    const place = places[vertex] ?? 0;
    const known = first.get(place);
    if (known === undefined) first.set(place, vertex);
    else for (let axis = 0; axis < 3; axis++) positions[vertex * 3 + axis] = positions[known * 3 + axis] ?? 0;
  }
  return mesh;
}
