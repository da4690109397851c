import type { MeshData } from './mesh';
import { addAt, dotAt, putCross, putStep } from './rows';

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
  // Numbers instead of vectors, and room that is used again: a mesh may have a million triangles.
  const [toB, toC, face, perB, perC] = [triple(), triple(), triple(), triple(), triple()];
  const [tangent, normal, across] = [triple(), triple(), triple()];
  // How u, v and the three parts of the normal change from the first corner to the others, and along two ways at a vertex.
  const [atB, atC, goingAlong, goingAcross] = [1, 2, 3, 4].map(() => new Float64Array(5)) as [
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
  ];
  for (let at = 0; at < indices.length; at += 3) {
    const [a, b, c] = [indices[at] ?? 0, indices[at + 1] ?? 0, indices[at + 2] ?? 0];
    putStep(toB, 0, positions, a, b, 3);
    putStep(toC, 0, positions, a, c, 3);
    putCross(face, 0, toB, 0, toC, 0);
    const square = dotAt(face, 0, face, 0);
    if (!(square > 1e-24)) continue;
    // A function that grows by 1 towards b and not towards c has this gradient, and the other way round.
    putCross(perB, 0, toC, 0, face, 0);
    putCross(perC, 0, face, 0, toB, 0);
    putStep(atB, 0, uvs, a, b, 2);
    putStep(atC, 0, uvs, a, c, 2);
    putStep(atB, 2, normals, a, b, 3);
    putStep(atC, 2, normals, a, c, 3);
    const area = Math.sqrt(square);
    const apart = Math.sqrt(Math.abs((atB[0] ?? 0) * (atC[1] ?? 0) - (atC[0] ?? 0) * (atB[1] ?? 0)));
    for (let corner = 0; corner < 3; corner++) {
      const vertex = indices[at + corner] ?? 0;
      for (let axis = 0; axis < 3; axis++) {
        tangent[axis] = tangents[vertex * 4 + axis] ?? 0;
        normal[axis] = normals[vertex * 3 + axis] ?? 0;
      }
      putCross(across, 0, normal, 0, tangent, 0);
      const sign = tangents[vertex * 4 + 3] ?? 1;
      for (let axis = 0; axis < 3; axis++) across[axis] = (across[axis] ?? 0) * sign;
      const [alongB, alongC] = [dotAt(perB, 0, tangent, 0) / square, dotAt(perC, 0, tangent, 0) / square];
      const [acrossB, acrossC] = [dotAt(perB, 0, across, 0) / square, dotAt(perC, 0, across, 0) / square];
      for (let each = 0; each < 5; each++) {
        const [first, second] = [atB[each] ?? 0, atC[each] ?? 0];
        goingAlong[each] = first * alongB + second * alongC;
        goingAcross[each] = first * acrossB + second * acrossC;
      }
      const mixed = (dotAt(goingAlong, 2, across, 0) + dotAt(goingAcross, 2, tangent, 0)) / 2;
      const to = vertex * SLOPE_FLOATS;
      addAt(slopes, to, (goingAlong[0] ?? 0) * area);
      addAt(slopes, to + 1, (goingAlong[1] ?? 0) * area);
      addAt(slopes, to + 2, (goingAcross[0] ?? 0) * area);
      addAt(slopes, to + 3, (goingAcross[1] ?? 0) * area);
      addAt(slopes, to + 4, dotAt(goingAlong, 2, tangent, 0) * area);
      addAt(slopes, to + 5, dotAt(goingAcross, 2, across, 0) * area);
      addAt(slopes, to + 6, mixed * area);
      addAt(slopes, to + 7, apart * area);
      addAt(weights, vertex, area);
    }
  }
  for (let vertex = 0; vertex < count; vertex++) {
    const weight = Math.max(weights[vertex] ?? 0, 1e-20);
    for (let at = vertex * SLOPE_FLOATS; at < (vertex + 1) * SLOPE_FLOATS; at++) slopes[at] = (slopes[at] ?? 0) / weight;
  }
  return slopes;
}

const triple = (): Float64Array<ArrayBuffer> => new Float64Array(3);
