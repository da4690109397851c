import type { Vector3 } from './patch';

export function minus(a: Vector3, b: Vector3): Vector3 {
  return [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
}

export function cross(a: Vector3, b: Vector3): Vector3 {
  return [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];
}

export function dot(a: Vector3, b: Vector3): number {
  return a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
}

/** At unit length; `instead` where there is no direction. */
export function unit(a: Vector3, instead: Vector3 = [0, 1, 0]): Vector3 {
  const length = Math.hypot(...a);
  return length > 1e-12 && Number.isFinite(length) ? [a[0] / length, a[1] / length, a[2] / length] : instead;
}

/** The part of a direction that is square to a unit normal, at unit length (Gram-Schmidt). */
export function squared(direction: Vector3, normal: Vector3): Vector3 {
  const along = dot(direction, normal);
  const rest = minus(direction, [normal[0] * along, normal[1] * along, normal[2] * along]);
  const other: Vector3 = Math.abs(normal[1]) < 0.9 ? [0, 1, 0] : [1, 0, 0];
  return unit(rest, unit(cross(other, normal)));
}
