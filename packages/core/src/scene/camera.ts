import type { OrbitCamera } from '@brelvin/contract';
import { mat4, vec3 } from 'gl-matrix';

export type { OrbitCamera };

export const START_CAMERA: OrbitCamera = { target: [0, 0, 0], distance: 5, azimuth: 0.35, elevation: 0.3, fieldOfView: 0.55 };
/** Metres from what is looked at: a model may be a millimetre, or kilometres. */
const NEAREST = 2e-4;
const FARTHEST = 9e3;
const STEEPEST = Math.PI / 2 - 0.01;

/** Unit vector from the target to the eye. */
export function eyeDirection({ azimuth, elevation }: OrbitCamera): [number, number, number] {
  const flat = Math.cos(elevation);
  return [Math.sin(azimuth) * flat, Math.sin(elevation), Math.cos(azimuth) * flat];
}

export function eyePosition(camera: OrbitCamera): [number, number, number] {
  const [x, y, z] = eyeDirection(camera);
  const [tx = 0, ty = 0, tz = 0] = camera.target;
  return [tx + x * camera.distance, ty + y * camera.distance, tz + z * camera.distance];
}

export function viewMatrix(camera: OrbitCamera): mat4 {
  return mat4.lookAt(
    mat4.create(),
    eyePosition(camera),
    vec3.fromValues(camera.target[0] ?? 0, camera.target[1] ?? 0, camera.target[2] ?? 0),
    [0, 1, 0],
  );
}

/** World to clip space with z 0…1, column-major. */
export function clipFromWorld(camera: OrbitCamera, aspect: number): mat4 {
  // Room behind for a floor, as far as depths stay apart.
  const far = camera.distance * 3 + Math.min(50, camera.distance * 1000);
  if (camera.orthographic) {
    const [half, reach] = [camera.distance * Math.tan(camera.fieldOfView / 2), far + camera.distance];
    // What is behind the eye is seen too: without perspective there is no place where the eye must be.
    const flat = mat4.orthoZO(mat4.create(), -half * aspect, half * aspect, -half, half, camera.distance - reach, reach);
    return mat4.multiply(flat, flat, viewMatrix(camera));
  }
  const near = camera.distance / 50;
  const projection = mat4.perspectiveZO(mat4.create(), camera.fieldOfView, aspect, near, far);
  return mat4.multiply(projection, projection, viewMatrix(camera));
}

export function orbit(camera: OrbitCamera, azimuth: number, elevation: number): OrbitCamera {
  return {
    ...camera,
    azimuth: camera.azimuth + azimuth,
    elevation: Math.min(Math.max(camera.elevation + elevation, -STEEPEST), STEEPEST),
  };
}

/** The six directions from which things are drawn. */
export const DIRECTIONS = {
  front: [0, 0],
  right: [Math.PI / 2, 0],
  back: [Math.PI, 0],
  left: [-Math.PI / 2, 0],
  above: [0, STEEPEST],
  below: [0, -STEEPEST],
} as const;

export function lookFrom(camera: OrbitCamera, from: keyof typeof DIRECTIONS): OrbitCamera {
  const [azimuth, elevation] = DIRECTIONS[from];
  // The short way round.
  const turns = Math.round((camera.azimuth - azimuth) / (2 * Math.PI));
  return { ...camera, azimuth: azimuth + turns * 2 * Math.PI, elevation };
}

export function dolly(camera: OrbitCamera, factor: number): OrbitCamera {
  return { ...camera, distance: Math.min(Math.max(camera.distance * factor, NEAREST), FARTHEST) };
}

/** Moves the target in the plane of the picture; 1 is the height of the picture at the target's distance. */
export function pan(camera: OrbitCamera, right: number, up: number): OrbitCamera {
  const height = 2 * camera.distance * Math.tan(camera.fieldOfView / 2);
  const view = viewMatrix(camera);
  const target = [0, 1, 2].map(
    (axis) => (camera.target[axis] ?? 0) + height * (right * (view[axis * 4] ?? 0) + up * (view[axis * 4 + 1] ?? 0)),
  );
  return { ...camera, target };
}

const MARGIN = 1.06;

/**
 * Brings points (x y z …, world space) into the picture, the direction of view unchanged: the nearest place from
 * which all of them are seen.
 */
export function framePoints(camera: OrbitCamera, points: ArrayLike<number>, aspect = 1): OrbitCamera {
  if (points.length < 3) return camera;
  const low = [Infinity, Infinity, Infinity];
  const high = [-Infinity, -Infinity, -Infinity];
  const view = viewMatrix({ ...camera, target: [0, 0, 0], distance: 1 });
  /** Along the camera's right, up and back axes. */
  const inView = (at: number, axis: number): number =>
    [0, 1, 2].reduce((sum, each) => sum + (view[each * 4 + axis] ?? 0) * (points[at + each] ?? 0), 0);
  for (let at = 0; at < points.length; at += 3) {
    for (let axis = 0; axis < 3; axis++) {
      const value = inView(at, axis);
      low[axis] = Math.min(low[axis] ?? 0, value);
      high[axis] = Math.max(high[axis] ?? 0, value);
    }
  }
  const middle = low.map((each, axis) => (each + (high[axis] ?? 0)) / 2);
  const tangent = Math.tan(camera.fieldOfView / 2) / MARGIN;
  let distance = NEAREST;
  for (let at = 0; at < points.length; at += 3) {
    const [x, y, z] = [0, 1, 2].map((axis) => inView(at, axis) - (middle[axis] ?? 0)) as [number, number, number];
    const depth = camera.orthographic ? 0 : z;
    distance = Math.max(distance, depth + Math.abs(x) / (tangent * aspect), depth + Math.abs(y) / tangent);
  }
  const target = [0, 1, 2].map((each) => [0, 1, 2].reduce((sum, axis) => sum + (view[each * 4 + axis] ?? 0) * (middle[axis] ?? 0), 0));
  return dolly({ ...camera, target, distance }, 1);
}

/**
 * Where a point of world space is in the picture: x to the right, y up, −1…1; `depth` is its distance along the line of
 * sight, metres, at most 0 behind the eye.
 */
export function placeInPicture(camera: OrbitCamera, point: readonly number[], aspect: number): { x: number; y: number; depth: number } {
  const [px = 0, py = 0, pz = 0] = point;
  const [, , z = 0] = vec3.transformMat4(vec3.create(), [px, py, pz], viewMatrix(camera));
  const [cx = 0, cy = 0] = vec3.transformMat4(vec3.create(), [px, py, pz], clipFromWorld(camera, aspect));
  return { x: cx, y: cy, depth: -z };
}

/** The line of sight through a place of the picture; x to the right, y up, −1…1. World space, unit direction. */
export function sightLine(camera: OrbitCamera, x: number, y: number, aspect: number): { origin: number[]; direction: number[] } {
  const view = viewMatrix(camera);
  const tangent = Math.tan(camera.fieldOfView / 2);
  if (camera.orthographic) {
    const [right, up] = [x * tangent * aspect * camera.distance, y * tangent * camera.distance];
    const eye = eyePosition(camera);
    // From well behind the eye, which has no place of its own.
    const back = eyeDirection(camera).map((each) => each * (camera.distance * 3 + 50));
    const origin = [0, 1, 2].map(
      (axis) => (eye[axis] ?? 0) + (view[axis * 4] ?? 0) * right + (view[axis * 4 + 1] ?? 0) * up + (back[axis] ?? 0),
    );
    return { origin, direction: eyeDirection(camera).map((each) => -each) };
  }
  const direction = [0, 1, 2].map(
    (axis) => (view[axis * 4] ?? 0) * x * tangent * aspect + (view[axis * 4 + 1] ?? 0) * y * tangent - (view[axis * 4 + 2] ?? 0),
  );
  const length = Math.hypot(...direction);
  return { origin: eyePosition(camera), direction: direction.map((each) => each / length) };
}
