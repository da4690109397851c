import type { MeshData } from './mesh';

const made = new WeakMap<MeshData, MeshData>();

/** A mesh whose faces and normals look the other way; images lie on it as before. The same mesh gives the same. */
export function turnedMesh(mesh: MeshData): MeshData {
  const known = made.get(mesh);
  if (known) return known;
  const indices = mesh.indices.slice();
  for (let at = 0; at < indices.length; at += 3) {
    const second = indices[at + 1] ?? 0;
    indices[at + 1] = indices[at + 2] ?? 0;
    indices[at + 2] = second;
  }
  // Where the normal turns round, so does the handedness: the bitangent stays.
  const tangents = mesh.tangents.map((each, at) => (at % 4 === 3 ? -each : each));
  const turned = { ...mesh, indices, tangents, normals: mesh.normals.map((each) => -each) };
  made.set(mesh, turned);
  return turned;
}
