import type { MeshData } from '../mesh';
import { PatchBuilder, type Vector3 } from '../patch';
import { squared } from '../vector';

interface Side {
  readonly name: string;
  readonly normal: Vector3;
  readonly right: Vector3;
  readonly up: Vector3;
}

/** The sides of a cube, each with what is right and up as seen from outside. */
export const CUBE_SIDES: readonly Side[] = [
  { name: 'front', normal: [0, 0, 1], right: [1, 0, 0], up: [0, 1, 0] },
  { name: 'back', normal: [0, 0, -1], right: [-1, 0, 0], up: [0, 1, 0] },
  { name: 'right', normal: [1, 0, 0], right: [0, 0, -1], up: [0, 1, 0] },
  { name: 'left', normal: [-1, 0, 0], right: [0, 0, 1], up: [0, 1, 0] },
  { name: 'top', normal: [0, 1, 0], right: [1, 0, 0], up: [0, 0, -1] },
  { name: 'bottom', normal: [0, -1, 0], right: [1, 0, 0], up: [0, 0, 1] },
];

/**
 * A cube round the origin in six parts. Each side has the whole first UV set; the second lays them out three
 * by two. Smooth, its normals go from the centre outwards, so that edges and corners are shared.
 */
export function cube({ size, segments, smooth }: { size: number; segments: number; smooth: boolean }): MeshData {
  const builder = new PatchBuilder();
  CUBE_SIDES.forEach(({ name, normal, right, up }, index) => {
    builder.patch(name, segments, segments, (u, v) => {
      const along = (axis: 0 | 1 | 2): number => normal[axis] * 0.5 + right[axis] * (u - 0.5) + up[axis] * (0.5 - v);
      const direction = [along(0), along(1), along(2)] as const;
      const length = Math.hypot(...direction);
      const outwards = smooth ? ([direction[0] / length, direction[1] / length, direction[2] / length] as const) : normal;
      return {
        position: [direction[0] * size, direction[1] * size, direction[2] * size],
        normal: outwards,
        tangent: squared(right, outwards),
        uv2: [((index % 3) + u) / 3, (Math.floor(index / 3) + v) / 2],
      };
    });
  });
  return builder.finish({ closed: true });
}
