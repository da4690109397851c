import type { MeshData } from './mesh';

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
  const [atB, atC, goingAlong, goingAcross] = [1, 2, 3, 4].map(() => new Float64Array(5)) as [Five, Five, Five, Five];
  for (let at = 0; at < indices.length; at += 3) {
    const [a, b, c] = [indices[at] ?? 0, indices[at + 1] ?? 0, indices[at + 2] ?? 0];
    between(positions, 3, a, b, toB, 0);
    between(positions, 3, a, c, toC, 0);
    cross(toB, toC, face);
    const square = dot(face, 0, face);
    if (!(square > 1e-24)) continue;
    // A function that grows by 1 towards b and not towards c has this gradient, and the other way round.
    cross(toC, face, perB);
    cross(face, toB, perC);
    between(uvs, 2, a, b, atB, 0);
    between(uvs, 2, a, c, atC, 0);
    between(normals, 3, a, b, atB, 2);
    between(normals, 3, a, c, atC, 2);
    const area = Math.sqrt(square);
    const apart = Math.sqrt(Math.abs((atB[0] ?? 0) * (atC[1] ?? 0) - (atC[0] ?? 0) * (atB[1] ?? 0)));
    for (let corner = 0; corner < 3; corner++) {
      const vertex = indices[at + corner] ?? 0;
      for (let axis = 0; axis < 3; axis++) {
        tangent[axis] = tangents[vertex * 4 + axis] ?? 0;
        normal[axis] = normals[vertex * 3 + axis] ?? 0;
      }
      cross(normal, tangent, across);
      const sign = tangents[vertex * 4 + 3] ?? 1;
      for (let axis = 0; axis < 3; axis++) across[axis] = (across[axis] ?? 0) * sign;
      const [alongB, alongC] = [dot(perB, 0, tangent) / square, dot(perC, 0, tangent) / square];
      const [acrossB, acrossC] = [dot(perB, 0, across) / square, dot(perC, 0, across) / square];
      for (let each = 0; each < 5; each++) {
        const [first, second] = [atB[each] ?? 0, atC[each] ?? 0];
        goingAlong[each] = first * alongB + second * alongC;
        goingAcross[each] = first * acrossB + second * acrossC;
      }
      const mixed = (dot(goingAlong, 2, across) + dot(goingAcross, 2, tangent)) / 2;
      const to = vertex * SLOPE_FLOATS;
      add(slopes, to, (goingAlong[0] ?? 0) * area);
      add(slopes, to + 1, (goingAlong[1] ?? 0) * area);
      add(slopes, to + 2, (goingAcross[0] ?? 0) * area);
      add(slopes, to + 3, (goingAcross[1] ?? 0) * area);
      add(slopes, to + 4, dot(goingAlong, 2, tangent) * area);
      add(slopes, to + 5, dot(goingAcross, 2, across) * area);
      add(slopes, to + 6, mixed * area);
      add(slopes, to + 7, apart * area);
      add(weights, vertex, area);
    }
  }
  for (let vertex = 0; vertex < count; vertex++) {
    const weight = Math.max(weights[vertex] ?? 0, 1e-20);
    for (let at = vertex * SLOPE_FLOATS; at < (vertex + 1) * SLOPE_FLOATS; at++) slopes[at] = (slopes[at] ?? 0) / weight;
  }
  return slopes;
}

type Five = Float64Array<ArrayBuffer>;

const triple = (): Float64Array<ArrayBuffer> => new Float64Array(3);

/** From one vertex to another, part by part. */
function between(values: Float32Array, size: number, from: number, to: number, into: Float64Array, start: number): void {
  for (let part = 0; part < size; part++) into[start + part] = (values[to * size + part] ?? 0) - (values[from * size + part] ?? 0);
}

function cross(a: Float64Array, b: Float64Array, into: Float64Array): void {
  const [ax, ay, az] = [a[0] ?? 0, a[1] ?? 0, a[2] ?? 0];
  const [bx, by, bz] = [b[0] ?? 0, b[1] ?? 0, b[2] ?? 0];
  into[0] = ay * bz - az * by;
  into[1] = az * bx - ax * bz;
  into[2] = ax * by - ay * bx;
}

/** Of three numbers of the first, from `start` on. */
function dot(a: Float64Array, start: number, b: Float64Array): number {
  return (a[start] ?? 0) * (b[0] ?? 0) + (a[start + 1] ?? 0) * (b[1] ?? 0) + (a[start + 2] ?? 0) * (b[2] ?? 0);
}

function add(sums: Float32Array, at: number, value: number): void {
  sums[at] = (sums[at] ?? 0) + value;
}
