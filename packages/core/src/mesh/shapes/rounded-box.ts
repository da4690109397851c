import type { MeshData } from '../mesh';
import { PatchBuilder, type Vector3 } from '../patch';
import { minus, squared, unit } from '../vector';
import { CUBE_SIDES } from './cube';

export interface RoundedBoxNumbers {
  readonly width: number;
  readonly height: number;
  readonly depth: number;
  /** Of the edges. */
  readonly radius: number;
  /** Of the rounding, per half edge. */
  readonly segments: number;
}

/** A box whose edges and corners are parts of cylinders and spheres: every point lies `radius` off an inner box. */
export function roundedBox({ width, height, depth, radius, segments }: RoundedBoxNumbers): MeshData {
  const halves: Vector3 = [width / 2, height / 2, depth / 2];
  const round = Math.min(radius, ...halves) * 0.9999;
  const inner: Vector3 = [halves[0] - round, halves[1] - round, halves[2] - round];
  const builder = new PatchBuilder();
  const size = 2 * segments + 1;
  CUBE_SIDES.forEach(({ name, normal, right, up }, index) => {
    const half = (axis: Vector3): number => Math.abs(axis[0] * halves[0] + axis[1] * halves[1] + axis[2] * halves[2]);
    builder.patch(name, size, size, (u, v) => {
      const [x, y] = [spread(u, segments, half(right), round), -spread(v, segments, half(up), round)];
      const on = (axis: 0 | 1 | 2): number => normal[axis] * halves[axis] + right[axis] * x + up[axis] * y;
      const point: Vector3 = [on(0), on(1), on(2)];
      const core: Vector3 = [clamp(point[0], inner[0]), clamp(point[1], inner[1]), clamp(point[2], inner[2])];
      const out = unit(minus(point, core));
      return {
        position: [core[0] + out[0] * round, core[1] + out[1] * round, core[2] + out[2] * round],
        normal: out,
        tangent: squared(right, out),
        uv: [0.5 + x / (2 * half(right)), 0.5 - y / (2 * half(up))],
        uv2: [((index % 3) + 0.5 + x / (2 * half(right))) / 3, (Math.floor(index / 3) + 0.5 - y / (2 * half(up))) / 2],
      };
    });
  });
  return builder.finish({ closed: true });
}

/** Places the columns of a side: `segments` in each rounding, equal angles apart, one over the flat middle. */
function spread(t: number, segments: number, half: number, round: number): number {
  const column = Math.round(t * (2 * segments + 1));
  const flat = half - round;
  const bow = (step: number): number => flat + round * Math.tan((Math.PI / 4) * (step / segments));
  return column <= segments ? -bow(segments - column) : bow(column - segments - 1);
}

function clamp(value: number, most: number): number {
  return Math.min(Math.max(value, -most), most);
}
