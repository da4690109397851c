import type { MeshData } from './mesh';

/** How far apart vertices lie in the first UV set, on average: the side of a square as large as two triangles. */
export function uvGap({ uvs, indices }: Pick<MeshData, 'uvs' | 'indices'>): number {
  let sum = 0;
  for (let at = 0; at < indices.length; at += 3) {
    const [a, b, c] = [(indices[at] ?? 0) * 2, (indices[at + 1] ?? 0) * 2, (indices[at + 2] ?? 0) * 2];
    const u1 = (uvs[b] ?? 0) - (uvs[a] ?? 0);
    const v1 = (uvs[b + 1] ?? 0) - (uvs[a + 1] ?? 0);
    const u2 = (uvs[c] ?? 0) - (uvs[a] ?? 0);
    const v2 = (uvs[c + 1] ?? 0) - (uvs[a + 1] ?? 0);
    sum += Math.sqrt(Math.abs(u1 * v2 - u2 * v1));
  }
  return indices.length > 0 ? sum / (indices.length / 3) : 0;
}
