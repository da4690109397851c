import type { Corners } from './corners';

/** Whether u and v of a triangle run the other way round than on the surface: its picture is mirrored. */
export function isMirrored(uvs: Float32Array, indices: Uint32Array, at: number): boolean {
  const [a, b, c] = [(indices[at] ?? 0) * 2, (indices[at + 1] ?? 0) * 2, (indices[at + 2] ?? 0) * 2];
  const side = (to: number, axis: number): number => (uvs[to + axis] ?? 0) - (uvs[a + axis] ?? 0);
  // v runs downwards, so what is not mirrored goes clockwise.
  return side(b, 0) * side(c, 1) - side(b, 1) * side(c, 0) > 0;
}

/**
 * Tangents from UVs: along +u, square to the normal, with the handedness in w; sums of those of the triangles round a
 * vertex, by area (Lengyel 2001, "Computing tangent space basis vectors for an arbitrary mesh"). Where mirrored and plain
 * triangles meet the vertex is taken apart, so that neither side bends the other's tangents.
 */
export function makeTangents(corners: Corners): void {
  const { indices } = corners;
  corners.split(
    Int32Array.from({ length: indices.length / 3 }, (_, triangle) => (isMirrored(corners.get('uvs'), indices, triangle * 3) ? 1 : 0)),
  );
  const [positions, normals, uvs] = [corners.get('positions'), corners.get('normals'), corners.get('uvs')];
  const tangents = new Float32Array(corners.count * 4);
  const hands = new Float32Array(corners.count).fill(1);
  const [steps, ends] = [new Float64Array(6), new Float64Array(4)];
  for (let at = 0; at < corners.indices.length; at += 3) {
    const a = corners.indices[at] ?? 0;
    for (let side = 0; side < 2; side++) {
      const to = corners.indices[at + 1 + side] ?? 0;
      for (let axis = 0; axis < 3; axis++) steps[side * 3 + axis] = (positions[to * 3 + axis] ?? 0) - (positions[a * 3 + axis] ?? 0);
      for (let axis = 0; axis < 2; axis++) ends[side * 2 + axis] = (uvs[to * 2 + axis] ?? 0) - (uvs[a * 2 + axis] ?? 0);
    }
    const [u1 = 0, v1 = 0, u2 = 0, v2 = 0] = ends;
    const area = u1 * v2 - u2 * v1;
    const sign = Math.abs(area) < 1e-20 ? 0 : Math.sign(area);
    for (let corner = 0; corner < 3; corner++) {
      const vertex = corners.indices[at + corner] ?? 0;
      hands[vertex] = area > 0 ? -1 : 1;
      // Not divided by the area in UV but by its sign: large triangles count more.
      for (let axis = 0; axis < 3; axis++) {
        const along = ((steps[axis] ?? 0) * v2 - (steps[3 + axis] ?? 0) * v1) * sign;
        tangents[vertex * 4 + axis] = (tangents[vertex * 4 + axis] ?? 0) + along;
      }
    }
  }
  for (let vertex = 0; vertex < corners.count; vertex++) squareToNormal(tangents, vertex, normals, hands[vertex] ?? 1);
  corners.set('tangents', 4, tangents);
}

function squareToNormal(tangents: Float32Array, vertex: number, normals: Float32Array, hand: number): void {
  const at = vertex * 4;
  const x = normals[vertex * 3] ?? 0;
  const y = normals[vertex * 3 + 1] ?? 1;
  const z = normals[vertex * 3 + 2] ?? 0;
  let tx = tangents[at] ?? 0;
  let ty = tangents[at + 1] ?? 0;
  let tz = tangents[at + 2] ?? 0;
  const along = tx * x + ty * y + tz * z;
  tx -= x * along;
  ty -= y * along;
  tz -= z * along;
  let length = Math.hypot(tx, ty, tz);
  if (!(length > 1e-12)) {
    // No way of u here: any that lies on the surface.
    const flat = Math.abs(y) < 0.9;
    tx = flat ? z : 1 - x * x;
    ty = flat ? 0 : -x * y;
    tz = flat ? -x : -x * z;
    length = Math.hypot(tx, ty, tz) || 1;
  }
  tangents[at] = tx / length;
  tangents[at + 1] = ty / length;
  tangents[at + 2] = tz / length;
  tangents[at + 3] = hand;
}
