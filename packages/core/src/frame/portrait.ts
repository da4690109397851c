import { boundsOf, type MeshData, type MeshPart } from '../mesh/mesh';
import { framePoints, START_CAMERA, type OrbitCamera } from '../scene/camera';
import { INSTANCE_WORDS } from './mesh-buffers';

/** Triangles that stand somewhere: corners x y z in object space, three by three, and the rows of their copies. */
export interface StandingTriangles {
  readonly corners: Float32Array;
  readonly rows: Float32Array;
}

const FEW_COPIES = 8;
const MOST_POINTS = 1500;
/** From how much of its area looking one way a surface counts as facing that way. */
const FACING = 0.5;
/** A portrait from straight above or below would lose its upright. */
const STEEPEST_PORTRAIT = 1.15;

/** Triangles of a part beyond which only every so manieth is looked at. */
const MOST_LOOKED_AT = 40_000;

/** Corners of the triangles of a part, three by three; of a large part of triangles that lie evenly among all. */
export function trianglesOf({ positions, indices }: MeshData, { first, count }: Pick<MeshPart, 'first' | 'count'>): Float32Array {
  const step = Math.max(1, Math.ceil(count / 3 / MOST_LOOKED_AT));
  const triangles = Math.ceil(count / 3 / step);
  const corners = new Float32Array(triangles * 9);
  for (let triangle = 0; triangle < triangles; triangle++) {
    for (let corner = 0; corner < 3; corner++) {
      const from = (indices[first + triangle * step * 3 + corner] ?? 0) * 3;
      for (let axis = 0; axis < 3; axis++) corners[triangle * 9 + corner * 3 + axis] = positions[from + axis] ?? 0;
    }
  }
  return corners;
}

/** Points of world space round positions of object space, at every copy; x y z one after the other. */
export function standingPoints(positions: Float32Array, rows: Float32Array): Float32Array {
  const copies = rows.length / INSTANCE_WORDS;
  const local = copies > FEW_COPIES ? boxCorners(positions) : sampled(positions);
  const points = new Float32Array(local.length * copies);
  for (let copy = 0; copy < copies; copy++)
    for (let point = 0; point < local.length; point += 3)
      points.set(placed(rows, copy * INSTANCE_WORDS, local, point), copy * local.length + point);
  return points;
}

/** A view of standing triangles for a small square picture: they fill it, seen from the side that they face, if any. */
export function portraitOf(standing: readonly StandingTriangles[]): OrbitCamera {
  const points = standing.flatMap(({ corners, rows }) => [...standingPoints(corners, rows)]);
  const [x, y, z] = facingOf(standing);
  const { azimuth, elevation } = START_CAMERA;
  const camera =
    Math.hypot(x, y, z) < FACING
      ? START_CAMERA
      : {
          ...START_CAMERA,
          azimuth: azimuth + (Math.hypot(x, z) > 1e-3 ? Math.atan2(x, z) : 0),
          elevation: Math.min(Math.max(elevation + Math.atan2(y, Math.hypot(x, z)), -STEEPEST_PORTRAIT), STEEPEST_PORTRAIT),
        };
  return framePoints(camera, points);
}

/** The mean of the triangles' normals, weighted by area: of unit length for a plane, zero for what is closed. */
function facingOf(standing: readonly StandingTriangles[]): [number, number, number] {
  const sum: [number, number, number] = [0, 0, 0];
  let whole = 0;
  for (const { corners, rows } of standing) {
    for (let at = 0; at < corners.length; at += 9) {
      const [a, b, c] = [placed(rows, 0, corners, at), placed(rows, 0, corners, at + 3), placed(rows, 0, corners, at + 6)];
      const [ux, uy, uz] = [b[0] - a[0], b[1] - a[1], b[2] - a[2]];
      const [vx, vy, vz] = [c[0] - a[0], c[1] - a[1], c[2] - a[2]];
      const normal = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx] as const;
      whole += Math.hypot(...normal);
      normal.forEach((each, axis) => (sum[axis] = (sum[axis] ?? 0) + each));
    }
  }
  return whole === 0 ? sum : [sum[0] / whole, sum[1] / whole, sum[2] / whole];
}

function placed(rows: Float32Array, at: number, points: Float32Array, point: number): [number, number, number] {
  const [x, y, z] = [points[point] ?? 0, points[point + 1] ?? 0, points[point + 2] ?? 0];
  const along = (row: number): number => (rows[row] ?? 0) * x + (rows[row + 1] ?? 0) * y + (rows[row + 2] ?? 0) * z + (rows[row + 3] ?? 0);
  return [along(at), along(at + 4), along(at + 8)];
}

function boxCorners(positions: Float32Array): Float32Array {
  const { low, high } = boundsOf(positions);
  return Float32Array.from({ length: 24 }, (_, index) => (((index / 3) >> (index % 3)) & 1 ? high : low)[index % 3] ?? 0);
}

/** Every so many points of a fine mesh: its outline hardly changes. */
function sampled(positions: Float32Array): Float32Array {
  const step = Math.ceil(positions.length / 3 / MOST_POINTS);
  if (step <= 1) return positions;
  const points = new Float32Array(Math.ceil(positions.length / 3 / step) * 3);
  for (let point = 0; point < points.length; point += 3) points.set(positions.subarray(point * step, point * step + 3), point);
  return points;
}
