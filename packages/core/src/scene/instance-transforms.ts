import type { SetMesh } from '@brelvin/contract';
import { mat4, quat } from 'gl-matrix';
import { eyeDirection, eyePosition, type OrbitCamera } from './camera';

/** Floats a copy: three rows of worldFromObject, and its number. */
const WORDS = 13;

/** How many copies of a mesh are drawn. */
export function instanceCount({ copies: { columns, rows } }: Pick<SetMesh, 'copies'>, most = 400): number {
  return Math.max(1, Math.min(columns * rows, most));
}

/** World from object without motion or copies: scale, then turn about x, y and z, then place. Column-major. */
export function placingMatrix({ position, turn, scale }: SetMesh['placing']): mat4 {
  const matrix = mat4.fromTranslation(mat4.create(), triple(position));
  const [x, y, z] = triple(turn);
  mat4.rotateZ(matrix, matrix, z);
  mat4.rotateY(matrix, matrix, y);
  mat4.rotateX(matrix, matrix, x);
  return mat4.scale(matrix, matrix, triple(scale));
}

/** The turn of a mesh about its own axis at a time of the Stage's clock. */
export function motionMatrix({ kind, axis, speed, angle }: SetMesh['motion'], seconds: number): mat4 {
  if (kind === 'still') return mat4.create();
  const cycles = seconds * speed * 2 * Math.PI;
  const around = kind === 'spin' ? cycles : Math.sin(cycles) * angle;
  const turn = quat.setAxisAngle(quat.create(), AXES[axis], around);
  return mat4.fromQuat(mat4.create(), turn);
}

const AXES = { x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] } as const;

/** World from object of a mesh's every copy, as the vertex stage reads them: rows, then the copy's number. */
export function instanceRows(mesh: Pick<SetMesh, 'placing' | 'motion' | 'copies'>, seconds: number): Float32Array<ArrayBuffer> {
  const count = instanceCount(mesh);
  const words = new Float32Array(count * WORDS);
  const own = mat4.multiply(mat4.create(), placingMatrix(mesh.placing), motionMatrix(mesh.motion, seconds));
  const { columns, rows, spacing } = mesh.copies;
  const width = Math.min(columns, count);
  for (let index = 0; index < count; index++) {
    const x = ((index % width) - (width - 1) / 2) * spacing;
    const z = (Math.floor(index / width) - (Math.min(rows, Math.ceil(count / width)) - 1) / 2) * spacing;
    const at = index * WORDS;
    for (let row = 0; row < 3; row++) {
      for (let column = 0; column < 4; column++) words[at + row * 4 + column] = own[column * 4 + row] ?? 0;
    }
    words[at + 3] = (words[at + 3] ?? 0) + x;
    words[at + 11] = (words[at + 11] ?? 0) + z;
    words[at + 12] = index;
  }
  return words;
}

/** The same copies, the farthest from the eye first; each keeps its number. */
export function rowsFarFirst(rows: Float32Array, camera: OrbitCamera): Float32Array<ArrayBuffer> {
  const [eye, way] = [eyePosition(camera), eyeDirection(camera)];
  const away = (copy: number): number => {
    const place = [3, 7, 11].map((word) => rows[copy * WORDS + word] ?? 0);
    if (camera.orthographic) return -place.reduce((sum, each, axis) => sum + each * (way[axis] ?? 0), 0);
    return place.reduce((sum, each, axis) => sum + (each - (eye[axis] ?? 0)) ** 2, 0);
  };
  const far = Array.from({ length: rows.length / WORDS }, (_, copy) => ({ copy, away: away(copy) })).sort((a, b) => b.away - a.away);
  const sorted = new Float32Array(rows.length);
  far.forEach(({ copy }, index) => sorted.set(rows.subarray(copy * WORDS, (copy + 1) * WORDS), index * WORDS));
  return sorted;
}

/** Whether the scale turns the mesh into its mirror image. */
export function isMirrored({ scale }: SetMesh['placing']): boolean {
  return triple(scale).reduce((sign, each) => sign * Math.sign(each || 1), 1) < 0;
}

function triple([x = 0, y = 0, z = 0]: readonly number[]): [number, number, number] {
  return [x, y, z];
}
