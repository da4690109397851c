import type { MeshData } from './mesh';
import { weld } from './weld';

/**
 * One UV for all vertices in one place, that of the first: where a picture that moves them is read there by all of them, the
 * surface stays shut along the seams of its UVs.
 */
export function sharedUvs({ positions, bounds, uvs }: Pick<MeshData, 'positions' | 'bounds' | 'uvs'>): Float32Array<ArrayBuffer> {
  const places = weld({ positions, bounds });
  const shared = new Float32Array(uvs);
  const first = new Map<number, number>();
  for (let vertex = 0; vertex < places.length; vertex++) {
    const place = places[vertex] ?? 0;
    const known = first.get(place);
    if (known === undefined) first.set(place, vertex);
    else for (const axis of [0, 1]) shared[vertex * 2 + axis] = uvs[known * 2 + axis] ?? 0;
  }
  return shared;
}
