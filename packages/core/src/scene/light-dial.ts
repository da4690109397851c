import { eyeDirection, viewMatrix, type OrbitCamera } from './camera';

/**
 * The light dial: the sphere of directions seen from the camera. Its centre is the direction towards the eye,
 * its inner circle (radius 0.7) everything square to it, its rim the direction away from the eye. x to the
 * right, y up, within the unit disc.
 */
export interface DialPoint {
  readonly x: number;
  readonly y: number;
}

export const DIAL_HORIZON = 0.7;

/** Where a world-space direction lies on the dial. */
export function dialFromDirection(camera: OrbitCamera, direction: readonly number[]): DialPoint {
  const [right, up, towards] = inView(camera, direction);
  const length = Math.hypot(right, up, towards) || 1;
  const angle = Math.acos(Math.min(Math.max(towards / length, -1), 1));
  const radius = radiusOf(angle);
  const flat = Math.hypot(right, up);
  return flat < 1e-9 ? { x: 0, y: towards < 0 ? 1 : 0 } : { x: (right / flat) * radius, y: (up / flat) * radius };
}

/** The unit world-space direction of a point; points beyond the rim count as on it. */
export function directionFromDial(camera: OrbitCamera, { x, y }: DialPoint): [number, number, number] {
  const radius = Math.min(Math.hypot(x, y), 1);
  const angle = angleOf(radius);
  const length = Math.hypot(x, y) || 1;
  const [right, up, towards] = [(x / length) * Math.sin(angle), (y / length) * Math.sin(angle), Math.cos(angle)];
  const view = viewMatrix(camera);
  const eye = eyeDirection(camera);
  const axis = (index: 0 | 1 | 2): number => right * (view[index * 4] ?? 0) + up * (view[index * 4 + 1] ?? 0) + towards * eye[index];
  return [axis(0), axis(1), axis(2)];
}

/** The half that faces the eye takes the inner disc, as an orthographic view; the far half takes the ring. */
function radiusOf(angle: number): number {
  if (angle <= Math.PI / 2) return DIAL_HORIZON * Math.sin(angle);
  return DIAL_HORIZON + ((1 - DIAL_HORIZON) * (angle - Math.PI / 2)) / (Math.PI / 2);
}

function angleOf(radius: number): number {
  if (radius <= DIAL_HORIZON) return Math.asin(radius / DIAL_HORIZON);
  return Math.PI / 2 + ((radius - DIAL_HORIZON) / (1 - DIAL_HORIZON)) * (Math.PI / 2);
}

function inView(camera: OrbitCamera, direction: readonly number[]): [number, number, number] {
  const view = viewMatrix(camera);
  const eye = eyeDirection(camera);
  const along = (axis: (index: number) => number): number =>
    [0, 1, 2].reduce((sum, index) => sum + axis(index) * (direction[index] ?? 0), 0);
  return [along((index) => view[index * 4] ?? 0), along((index) => view[index * 4 + 1] ?? 0), along((index) => eye[index] ?? 0)];
}
