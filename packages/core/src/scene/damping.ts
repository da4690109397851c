import type { OrbitCamera } from './camera';

const HALF_LIFE = 0.045;
const CLOSE = 1e-4;

/**
 * Moves a camera part of the way to where it is wanted: half of what is left every 45 ms, whatever the time
 * between pictures.
 *
 * @returns `wanted` itself once nothing visible is left
 */
export function approach(camera: OrbitCamera, wanted: OrbitCamera, seconds: number): OrbitCamera {
  const left = 2 ** (-seconds / HALF_LIFE);
  const blend = (from: number, to: number): number => to + (from - to) * left;
  const next: OrbitCamera = {
    ...wanted,
    target: wanted.target.map((value, axis) => blend(camera.target[axis] ?? 0, value)),
    distance: blend(camera.distance, wanted.distance),
    azimuth: blend(camera.azimuth, wanted.azimuth),
    elevation: blend(camera.elevation, wanted.elevation),
    fieldOfView: blend(camera.fieldOfView, wanted.fieldOfView),
  };
  const far =
    next.target.some((value, axis) => Math.abs(value - (wanted.target[axis] ?? 0)) > CLOSE * wanted.distance) ||
    Math.abs(next.distance - wanted.distance) > CLOSE * wanted.distance ||
    Math.abs(next.fieldOfView - wanted.fieldOfView) > CLOSE ||
    Math.abs(next.azimuth - wanted.azimuth) > CLOSE ||
    Math.abs(next.elevation - wanted.elevation) > CLOSE;
  return far ? next : wanted;
}
