import type { StageSet } from '@brelvin/contract';
import { overridesOf, type MeshData } from '@brelvin/core';

const MOST_TRIANGLES = 12_000;

/** Edges of triangles over an image: u and v of both ends, one after the other. */
export interface UvLines {
  readonly ends: Float32Array;
  /** Every so manieth triangle is among them. */
  readonly step: number;
}

/**
 * Where the parts that wear a material lie on its images, by the mesh's first or second UV.
 *
 * @param meshOf triangles of a mesh of the set
 */
export function uvLines(set: StageSet, material: string, uvSet: number, meshOf: (mesh: StageSet['meshes'][string]) => MeshData): UvLines {
  const worn = Object.entries(set.meshes).flatMap(([id, mesh]) => {
    const data = meshOf(mesh);
    const parts = data.parts.filter(({ name }) => (overridesOf(set, id, name).material ?? material) === material);
    return parts.map(({ first, count }) => ({ data, first, count }));
  });
  const triangles = worn.reduce((sum, { count }) => sum + count / 3, 0);
  const step = Math.max(1, Math.ceil(triangles / MOST_TRIANGLES));
  const ends: number[] = [];
  for (const { data, first, count } of worn) for (let at = first; at < first + count; at += 3 * step) addEdges(ends, data, at, uvSet);
  return { ends: Float32Array.from(ends), step };
}

function addEdges(ends: number[], { indices, uvs, uvs2 }: MeshData, at: number, uvSet: number): void {
  const from = uvSet === 1 ? uvs2 : uvs;
  for (let corner = 0; corner < 3; corner++) {
    const [a = 0, b = 0] = [indices[at + corner], indices[at + ((corner + 1) % 3)]];
    ends.push(from[a * 2] ?? 0, from[a * 2 + 1] ?? 0, from[b * 2] ?? 0, from[b * 2 + 1] ?? 0);
  }
}
