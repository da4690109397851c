import { buildMesh, dressOf, type MeshData, type StageSet } from '@brelvin/core';

const MOST_TRIANGLES = 40_000;

/** Edges of triangles over an image: u and v of both ends, one after the other. */
export interface UvLines {
  readonly ends: Float32Array;
  /** There are more triangles than are drawn. */
  readonly cut: boolean;
}

/** Where the parts that wear a material lie on its images, by the mesh's first or second UV. */
export function uvLines(set: StageSet, material: string, uvSet: number): UvLines {
  const ends: number[] = [];
  let cut = false;
  for (const [id, mesh] of Object.entries(set.meshes)) {
    const data = buildMesh(mesh);
    const worn = data.parts.filter(({ name }) => (dressOf(set, id, name).material ?? material) === material);
    for (const { first, count } of worn) {
      const room = MOST_TRIANGLES * 12 - ends.length;
      if (count * 4 > room) cut = true;
      addEdges(ends, data, first, Math.min(count, Math.floor(room / 12) * 3), uvSet);
    }
  }
  return { ends: Float32Array.from(ends), cut };
}

function addEdges(ends: number[], { indices, uvs, uvs2 }: MeshData, first: number, count: number, uvSet: number): void {
  const from = uvSet === 1 ? uvs2 : uvs;
  for (let at = first; at < first + count; at += 3) {
    for (let corner = 0; corner < 3; corner++) {
      const [a = 0, b = 0] = [indices[at + corner], indices[at + ((corner + 1) % 3)]];
      ends.push(from[a * 2] ?? 0, from[a * 2 + 1] ?? 0, from[b * 2] ?? 0, from[b * 2 + 1] ?? 0);
    }
  }
}
