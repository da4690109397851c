import type { SurfacePoint, Vector3 } from './patch';
import { unit } from './vector';

/** A point of an outline that is turned round the y axis. */
export interface OutlinePoint {
  readonly radius: number;
  readonly height: number;
  /** Outwards in the plane of the outline: away from the axis, up. */
  readonly normal: readonly [outwards: number, up: number];
}

/** A point of the turned surface; u runs once round to the east from the back, as v goes down the outline. */
export function turned({ radius, height, normal }: OutlinePoint, u: number): SurfacePoint {
  const around = u * 2 * Math.PI;
  const [x, z] = [-Math.sin(around), -Math.cos(around)];
  return {
    position: [x * radius, height, z * radius],
    normal: unit([x * normal[0], normal[1], z * normal[0]]),
    tangent: [-Math.cos(around), 0, Math.sin(around)],
  };
}

/** A level disc that closes a turned shape; its first UV set is the view from above (or from below). */
export function disc(radius: number, height: number, faces: 'up' | 'down'): (u: number, v: number) => SurfacePoint {
  return (u, v) => {
    const point = turned({ radius: radius * (faces === 'up' ? v : 1 - v), height, normal: [0, faces === 'up' ? 1 : -1] }, u);
    const [x, , z] = point.position;
    const down = faces === 'up' ? z : -z;
    const tangent: Vector3 = [1, 0, 0];
    return { ...point, tangent, uv: [0.5 + x / (2 * radius), 0.5 + down / (2 * radius)] };
  };
}

/**
 * A smooth outline through points (radius, height), from the top down: a uniform Catmull-Rom spline
 * (Catmull and Rom 1974). `t` 0…1.
 */
export function outlineThrough(points: readonly (readonly [number, number])[], t: number): OutlinePoint {
  const last = points.length - 1;
  const at = Math.min(t * last, last - 1e-9);
  const index = Math.floor(at);
  const s = at - index;
  const point = (offset: number): readonly [number, number] => points[Math.min(Math.max(index + offset, 0), last)] ?? [0, 0];
  const [a, b, c, d] = [point(-1), point(0), point(1), point(2)];
  const value = (axis: 0 | 1): number =>
    0.5 *
    (2 * b[axis] +
      (c[axis] - a[axis]) * s +
      (2 * a[axis] - 5 * b[axis] + 4 * c[axis] - d[axis]) * s * s +
      (3 * b[axis] - a[axis] - 3 * c[axis] + d[axis]) * s ** 3);
  const slope = (axis: 0 | 1): number =>
    0.5 *
    (c[axis] -
      a[axis] +
      2 * (2 * a[axis] - 5 * b[axis] + 4 * c[axis] - d[axis]) * s +
      3 * (3 * b[axis] - a[axis] - 3 * c[axis] + d[axis]) * s * s);
  const [dr, dh] = [slope(0), slope(1)];
  const length = Math.hypot(dr, dh) || 1;
  return { radius: Math.max(value(0), 0), height: value(1), normal: [-dh / length, dr / length] };
}
