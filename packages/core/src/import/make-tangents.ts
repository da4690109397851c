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
  for (let at = 0; at < corners.indices.length; at += 3) {
    const [a, b, c] = [corners.indices[at] ?? 0, corners.indices[at + 1] ?? 0, corners.indices[at + 2] ?? 0];
    const uv = (to: number, axis: number): number => (uvs[to * 2 + axis] ?? 0) - (uvs[a * 2 + axis] ?? 0);
    const [u1, v1, u2, v2] = [uv(b, 0), uv(b, 1), uv(c, 0), uv(c, 1)];
    const area = u1 * v2 - u2 * v1;
    const mirrored = area > 0;
    for (const vertex of [a, b, c]) hands[vertex] = mirrored ? -1 : 1;
    if (Math.abs(area) < 1e-20) continue;
    for (let axis = 0; axis < 3; axis++) {
      const step = (to: number): number => (positions[to * 3 + axis] ?? 0) - (positions[a * 3 + axis] ?? 0);
      // Not divided by the area in UV but by its sign: large triangles count more.
      const along = (step(b) * v2 - step(c) * v1) * Math.sign(area);
      for (const vertex of [a, b, c]) tangents[vertex * 4 + axis] = (tangents[vertex * 4 + axis] ?? 0) + along;
    }
  }
  for (let vertex = 0; vertex < corners.count; vertex++) {
    const [x = 0, y = 1, z = 0] = normals.subarray(vertex * 3, vertex * 3 + 3);
    let [tx = 0, ty = 0, tz = 0] = tangents.subarray(vertex * 4, vertex * 4 + 3);
    const along = tx * x + ty * y + tz * z;
    [tx, ty, tz] = [tx - x * along, ty - y * along, tz - z * along];
    let length = Math.hypot(tx, ty, tz);
    if (!(length > 1e-12)) {
      // No way of u here: any that lies on the surface.
      [tx, ty, tz] = Math.abs(y) < 0.9 ? [z, 0, -x] : [1 - x * x, -x * y, -x * z];
      length = Math.hypot(tx, ty, tz) || 1;
    }
    tangents.set([tx / length, ty / length, tz / length, hands[vertex] ?? 1], vertex * 4);
  }
  corners.set('tangents', 4, tangents);
}
