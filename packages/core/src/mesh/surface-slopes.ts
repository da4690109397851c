import type { MeshData } from './mesh';
import type { Vector3 } from './patch';
import { cross, dot, minus } from './vector';

/** Floats a vertex: see `surfaceSlopes`. */
export const SLOPE_FLOATS = 8;

/**
 * How UV and normal change along the surface, per metre of object space; eight numbers a vertex: u and v along the
 * tangent, u and v across it (along `cross(normal, tangent) * w`), then of the normal its part along the tangent going
 * along, across it going across, and the mean of both mixed parts (the shape operator, which is symmetric); last, how far
 * apart vertices lie in UV: the side of a square as large as two triangles, by which images are read no finer than vertices
 * can follow. Gradients of triangles are weighted by area, so that a vertex gets the mean of those round it; one without any gets zeros.
 */
export function surfaceSlopes({ positions, normals, tangents, uvs, indices }: MeshData): Float32Array<ArrayBuffer> {
  const count = positions.length / 3;
  const slopes = new Float32Array(count * SLOPE_FLOATS);
  const weights = new Float32Array(count);
  const point = (from: Float32Array, vertex: number, size: 3 | 4): Vector3 => [
    from[vertex * size] ?? 0,
    from[vertex * size + 1] ?? 0,
    from[vertex * size + 2] ?? 0,
  ];
  for (let at = 0; at < indices.length; at += 3) {
    const [a = 0, b = 0, c = 0] = indices.subarray(at, at + 3);
    const origin = point(positions, a, 3);
    const [toB, toC] = [minus(point(positions, b, 3), origin), minus(point(positions, c, 3), origin)];
    const face = cross(toB, toC);
    const square = dot(face, face);
    if (!(square > 1e-24)) continue;
    // A function that grows by 1 towards b and not towards c has this gradient, and the other way round.
    const [perB, perC] = [cross(toC, face), cross(face, toB)].map((each) => each.map((part) => part / square) as unknown as Vector3);
    if (!perB || !perC) continue;
    const change = (from: Float32Array, size: number, axis: number): [number, number] => {
      const first = from[a * size + axis] ?? 0;
      return [(from[b * size + axis] ?? 0) - first, (from[c * size + axis] ?? 0) - first];
    };
    const grow = [change(uvs, 2, 0), change(uvs, 2, 1), change(normals, 3, 0), change(normals, 3, 1), change(normals, 3, 2)];
    const area = Math.sqrt(square);
    const [[u1, u2] = [0, 0], [v1, v2] = [0, 0]] = grow;
    const apart = Math.sqrt(Math.abs(u1 * v2 - u2 * v1));
    for (const vertex of [a, b, c]) {
      const tangent = point(tangents, vertex, 4);
      const sign = tangents[vertex * 4 + 3] ?? 1;
      const [x, y, z] = cross(point(normals, vertex, 3), tangent);
      const ways: readonly Vector3[] = [tangent, [x * sign, y * sign, z * sign]];
      const [along = [], across = []] = ways.map((way) => {
        const [first, second] = [dot(perB, way), dot(perC, way)];
        return grow.map(([toward, other]) => toward * first + other * second);
      });
      const turn = (by: readonly number[], way: Vector3 = [0, 0, 0]): number => dot([by[2] ?? 0, by[3] ?? 0, by[4] ?? 0], way);
      const mixed = (turn(along, ways[1]) + turn(across, ways[0])) / 2;
      const numbers = [along[0], along[1], across[0], across[1], turn(along, ways[0]), turn(across, ways[1]), mixed, apart];
      numbers.forEach(
        (each = 0, index) => (slopes[vertex * SLOPE_FLOATS + index] = (slopes[vertex * SLOPE_FLOATS + index] ?? 0) + each * area),
      );
      weights[vertex] = (weights[vertex] ?? 0) + area;
    }
  }
  for (let index = 0; index < slopes.length; index++)
    slopes[index] = (slopes[index] ?? 0) / Math.max(weights[Math.floor(index / SLOPE_FLOATS)] ?? 0, 1e-20);
  return slopes;
}
