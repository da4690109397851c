import { boundsOf } from '../mesh/mesh';
import { weldedNormals } from '../mesh/welded-normals';
import type { Corners } from './corners';

/** Normals for a mesh without: of each face for itself (glTF 2.0, section 3.7.2.1), or shared by all that meet in a place. */
export function makeNormals(corners: Corners, flat: boolean): void {
  if (flat) corners.split(Int32Array.from({ length: corners.indices.length / 3 }, (_, triangle) => triangle));
  const positions = corners.get('positions');
  const own = new Float32Array(positions.length);
  if (!flat) {
    const up = own.map((_, at) => (at % 3 === 1 ? 1 : 0));
    corners.set('normals', 3, weldedNormals({ positions, normals: up, indices: corners.indices, bounds: boundsOf(positions) }));
    return;
  }
  for (let at = 0; at < corners.indices.length; at += 3) {
    const normal = faceNormal(positions, corners.indices, at);
    for (let corner = 0; corner < 3; corner++) own.set(normal, (corners.indices[at + corner] ?? 0) * 3);
  }
  corners.set('normals', 3, own);
}

/** Unit length; up where the face has no area. */
export function faceNormal(positions: Float32Array, indices: Uint32Array, at: number): [number, number, number] {
  const [a, b, c] = [(indices[at] ?? 0) * 3, (indices[at + 1] ?? 0) * 3, (indices[at + 2] ?? 0) * 3];
  const side = (to: number, axis: number): number => (positions[to + axis] ?? 0) - (positions[a + axis] ?? 0);
  const x = side(b, 1) * side(c, 2) - side(b, 2) * side(c, 1);
  const y = side(b, 2) * side(c, 0) - side(b, 0) * side(c, 2);
  const z = side(b, 0) * side(c, 1) - side(b, 1) * side(c, 0);
  const length = Math.hypot(x, y, z);
  return length > 1e-30 ? [x / length, y / length, z / length] : [0, 1, 0];
}
