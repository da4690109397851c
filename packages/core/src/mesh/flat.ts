import type { MeshData } from './mesh';

/** The same mesh with every triangle on its own and facing one way: facets instead of a smooth surface. */
export function flatShaded(mesh: MeshData): MeshData {
  const count = mesh.indices.length;
  const gather = (from: Float32Array, size: number): Float32Array<ArrayBuffer> => {
    const to = new Float32Array(count * size);
    mesh.indices.forEach((vertex, index) => to.set(from.subarray(vertex * size, vertex * size + size), index * size));
    return to;
  };
  const positions = gather(mesh.positions, 3);
  const normals = new Float32Array(count * 3);
  const tangents = gather(mesh.tangents, 4);
  for (let first = 0; first < count; first += 3) {
    const normal = faceNormal(positions, first * 3);
    for (let corner = first; corner < first + 3; corner++) {
      normals.set(normal, corner * 3);
      straighten(tangents, corner * 4, normal);
    }
  }
  return {
    ...mesh,
    positions,
    normals,
    tangents,
    uvs: gather(mesh.uvs, 2),
    uvs2: gather(mesh.uvs2, 2),
    colours: gather(mesh.colours, 4),
    indices: Uint32Array.from({ length: count }, (_, index) => index),
  };
}

function faceNormal(positions: Float32Array, at: number): [number, number, number] {
  const value = (offset: number): number => positions[at + offset] ?? 0;
  const [ax, ay, az] = [value(3) - value(0), value(4) - value(1), value(5) - value(2)];
  const [bx, by, bz] = [value(6) - value(0), value(7) - value(1), value(8) - value(2)];
  const [x, y, z] = [ay * bz - az * by, az * bx - ax * bz, ax * by - ay * bx];
  const length = Math.hypot(x, y, z) || 1;
  return [x / length, y / length, z / length];
}

/** Gram-Schmidt: takes the part along the normal out of a tangent. */
function straighten(tangents: Float32Array, at: number, [nx, ny, nz]: readonly [number, number, number]): void {
  const [x = 0, y = 0, z = 0] = tangents.subarray(at, at + 3);
  const along = x * nx + y * ny + z * nz;
  const [tx, ty, tz] = [x - along * nx, y - along * ny, z - along * nz];
  const length = Math.hypot(tx, ty, tz) || 1;
  tangents.set([tx / length, ty / length, tz / length], at);
}
