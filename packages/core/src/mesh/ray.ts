import type { Bounds, MeshData } from './mesh';

export interface Ray {
  readonly origin: readonly number[];
  /** Need not be of unit length; distances count in its lengths. */
  readonly direction: readonly number[];
}

const HARDLY = 1e-9;

/**
 * The distance at which a ray first meets a part of a mesh, from either side (Möller and Trumbore 1997). Object space.
 */
export function hitPart(
  mesh: Pick<MeshData, 'positions' | 'indices'>,
  { first, count }: { readonly first: number; readonly count: number },
  ray: Ray,
): number | undefined {
  const [ox = 0, oy = 0, oz = 0] = ray.origin;
  const [dx = 0, dy = 0, dz = 0] = ray.direction;
  const { positions, indices } = mesh;
  let best: number | undefined;
  for (let index = first; index < first + count; index += 3) {
    const [a, b, c] = [(indices[index] ?? 0) * 3, (indices[index + 1] ?? 0) * 3, (indices[index + 2] ?? 0) * 3];
    const at = (offset: number): number => positions[offset] ?? 0;
    const [ux, uy, uz] = [at(b) - at(a), at(b + 1) - at(a + 1), at(b + 2) - at(a + 2)];
    const [vx, vy, vz] = [at(c) - at(a), at(c + 1) - at(a + 1), at(c + 2) - at(a + 2)];
    const [px, py, pz] = [dy * vz - dz * vy, dz * vx - dx * vz, dx * vy - dy * vx];
    const determinant = ux * px + uy * py + uz * pz;
    if (Math.abs(determinant) < HARDLY) continue;
    const [tx, ty, tz] = [ox - at(a), oy - at(a + 1), oz - at(a + 2)];
    const s = (tx * px + ty * py + tz * pz) / determinant;
    if (s < 0 || s > 1) continue;
    const [qx, qy, qz] = [ty * uz - tz * uy, tz * ux - tx * uz, tx * uy - ty * ux];
    const t = (dx * qx + dy * qy + dz * qz) / determinant;
    if (t < 0 || s + t > 1) continue;
    const distance = (vx * qx + vy * qy + vz * qz) / determinant;
    if (distance > HARDLY && (best === undefined || distance < best)) best = distance;
  }
  return best;
}

/** Whether a ray meets a box: the slab test (Kay and Kajiya 1986). */
export function meetsBounds({ low, high }: Bounds, { origin, direction }: Ray): boolean {
  let [near, far] = [-Infinity, Infinity];
  for (const axis of [0, 1, 2]) {
    const [from, step] = [origin[axis] ?? 0, direction[axis] ?? 0];
    const [first, last] = [(low[axis] ?? 0) - from, (high[axis] ?? 0) - from];
    if (Math.abs(step) < HARDLY) {
      if (first > 0 || last < 0) return false;
      continue;
    }
    near = Math.max(near, Math.min(first / step, last / step));
    far = Math.min(far, Math.max(first / step, last / step));
  }
  return far >= Math.max(near, 0);
}
