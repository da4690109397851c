import type { SurfacePoint, Vector3 } from './patch';
import { cross, minus, squared, unit } from './vector';

const SMALL_STEP = 1e-4;
/** How far from a pole the frame is taken, where one of the two derivatives vanishes. */
const ASIDE = 2e-3;

/**
 * A point of a surface given only by its positions, with its frame from central differences of the partial
 * derivatives; u to the right and v downwards as seen from outside, both 0…1.
 */
export function surfacePoint(position: (u: number, v: number) => Vector3, u: number, v: number, step = SMALL_STEP): SurfacePoint {
  const difference = (at: (x: number) => Vector3, x: number): Vector3 => {
    const [ax, ay, az] = minus(at(x + step), at(x - step));
    return [ax / (2 * step), ay / (2 * step), az / (2 * step)];
  };
  const alongU = difference((at) => position(at, v), u);
  const alongV = difference((at) => position(u, at), v);
  const across = cross(alongV, alongU);
  if (Math.hypot(...across) > 1e-3 * Math.max(Math.hypot(...alongU) ** 2, Math.hypot(...alongV) ** 2)) {
    const normal = unit(across);
    return { position: position(u, v), normal, tangent: squared(alongU, normal) };
  }
  // A pole: the frame of a point close by, towards the middle of the patch.
  const [nearU, nearV] = [u + Math.sign(0.5 - u) * ASIDE * 0.1, v + (Math.sign(0.5 - v) || 1) * ASIDE];
  const dU = difference((at) => position(at, nearV), nearU);
  const normal = unit(
    cross(
      difference((at) => position(nearU, at), nearV),
      dU,
    ),
  );
  return { position: position(u, v), normal, tangent: squared(dU, normal) };
}
