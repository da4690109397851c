import type { MeshData } from '../mesh';
import { PatchBuilder, type SurfacePoint, type Vector3 } from '../patch';
import { squared, unit } from '../vector';

const GOLDEN = (1 + Math.sqrt(5)) / 2;

/** Corners and faces of an icosahedron (Coxeter, "Regular Polytopes", section 3.7). */
const CORNERS: readonly Vector3[] = [
  [-1, GOLDEN, 0],
  [1, GOLDEN, 0],
  [-1, -GOLDEN, 0],
  [1, -GOLDEN, 0],
  [0, -1, GOLDEN],
  [0, 1, GOLDEN],
  [0, -1, -GOLDEN],
  [0, 1, -GOLDEN],
  [GOLDEN, 0, -1],
  [GOLDEN, 0, 1],
  [-GOLDEN, 0, -1],
  [-GOLDEN, 0, 1],
];
const FACES: readonly (readonly [number, number, number])[] = [
  [0, 11, 5],
  [0, 5, 1],
  [0, 1, 7],
  [0, 7, 10],
  [0, 10, 11],
  [1, 5, 9],
  [5, 11, 4],
  [11, 10, 2],
  [10, 7, 6],
  [7, 1, 8],
  [3, 9, 4],
  [3, 4, 2],
  [3, 2, 6],
  [3, 6, 8],
  [3, 8, 9],
  [4, 9, 5],
  [2, 4, 11],
  [6, 2, 10],
  [8, 6, 7],
  [9, 8, 1],
];

/**
 * A sphere of nearly equal triangles: an icosahedron, each edge cut into `frequency`, pushed out to the sphere.
 * The first UV set is that of the sphere, and runs past 1 in triangles across the seam at the back.
 */
export function geodesic({ radius, frequency }: { radius: number; frequency: number }): MeshData {
  const builder = new PatchBuilder();
  FACES.forEach((face, number) => {
    const [a, b, c] = face.map((corner) => CORNERS[corner] ?? [0, 1, 0]) as [Vector3, Vector3, Vector3];
    const at = (row: number, column: number): { direction: Vector3; place: readonly [number, number] } => {
      const [s, t] = [column / frequency, (row - column) / frequency];
      const mixed = (axis: 0 | 1 | 2): number => a[axis] * (1 - s - t) + b[axis] * t + c[axis] * s;
      return { direction: unit([mixed(0), mixed(1), mixed(2)]), place: [s, t] };
    };
    for (let row = 0; row < frequency; row++) {
      for (let column = 0; column <= row; column++) {
        const corners = [at(row, column), at(row + 1, column), at(row + 1, column + 1)];
        addTriangle(builder, corners, radius, number);
        if (column < row) addTriangle(builder, [at(row, column), at(row + 1, column + 1), at(row, column + 1)], radius, number);
      }
    }
  });
  return builder.finish({ closed: true });
}

type Corner = { readonly direction: Vector3; readonly place: readonly [number, number] };

function addTriangle(builder: PatchBuilder, corners: readonly Corner[], radius: number, face: number): void {
  const around = corners.map(({ direction: [x, , z] }) => (Math.hypot(x, z) < 1e-9 ? undefined : 0.5 + Math.atan2(x, z) / (2 * Math.PI)));
  const known = around.filter((each) => each !== undefined);
  const crosses = Math.max(...known) - Math.min(...known) > 0.5;
  const lifted = known.map((each) => (crosses && each < 0.5 ? each + 1 : each));
  const middle = lifted.reduce((sum, each) => sum + each, 0) / lifted.length;
  const points = corners.map(({ direction, place }, index): SurfacePoint => {
    const own = around[index];
    const u = own === undefined ? middle : crosses && own < 0.5 ? own + 1 : own;
    const [x, y, z] = direction;
    return {
      position: [x * radius, y * radius, z * radius],
      normal: direction,
      tangent: squared([z, 0, -x], direction),
      uv: [u, Math.acos(Math.min(Math.max(y, -1), 1)) / Math.PI],
      uv2: [((face % 5) + place[0] * 0.98) / 5, (Math.floor(face / 5) + place[1] * 0.98) / 4],
    };
  });
  builder.triangles('geodesic', points, [0, 1, 2]);
}
