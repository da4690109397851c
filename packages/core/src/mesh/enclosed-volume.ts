import type { MeshData } from './mesh';

/**
 * The volume that a mesh encloses, and its area: below 0 where its faces look inwards (divergence theorem, from its
 * triangles). An open sheet encloses next to nothing.
 *
 * @returns cubic and square metres
 */
export function enclosedVolume({ positions, indices, bounds }: Pick<MeshData, 'positions' | 'indices' | 'bounds'>): {
  readonly volume: number;
  readonly area: number;
} {
  const [mx = 0, my = 0, mz = 0] = bounds.low.map((each, axis) => (each + (bounds.high[axis] ?? 0)) / 2);
  let [volume, area] = [0, 0];
  for (let at = 0; at < indices.length; at += 3) {
    const [a, b, c] = [(indices[at] ?? 0) * 3, (indices[at + 1] ?? 0) * 3, (indices[at + 2] ?? 0) * 3];
    const ax = (positions[a] ?? 0) - mx;
    const ay = (positions[a + 1] ?? 0) - my;
    const az = (positions[a + 2] ?? 0) - mz;
    const bx = (positions[b] ?? 0) - mx - ax;
    const by = (positions[b + 1] ?? 0) - my - ay;
    const bz = (positions[b + 2] ?? 0) - mz - az;
    const cx = (positions[c] ?? 0) - mx - ax;
    const cy = (positions[c + 1] ?? 0) - my - ay;
    const cz = (positions[c + 2] ?? 0) - mz - az;
    const [nx, ny, nz] = [by * cz - bz * cy, bz * cx - bx * cz, bx * cy - by * cx];
    volume += (ax * nx + ay * ny + az * nz) / 6;
    area += Math.hypot(nx, ny, nz) / 2;
  }
  return { volume, area };
}

/** Whether a closed mesh is inside out; an open one never is. */
export function facesInwards(mesh: Pick<MeshData, 'positions' | 'indices' | 'bounds'>): boolean {
  const { volume, area } = enclosedVolume(mesh);
  return volume < -0.02 * area ** 1.5;
}
