import type { MeshData } from '../mesh';
import { PatchBuilder } from '../patch';
import { CUBE_SIDES } from './cube';

const WALL_NAMES: Readonly<Record<string, string>> = {
  front: 'near wall',
  back: 'far wall',
  right: 'right wall',
  left: 'left wall',
  top: 'ceiling',
  bottom: 'floorboards',
};

/** A room seen from inside: its six sides face inwards, so that the one you look through is not there. */
export function room({ width, height, depth }: { width: number; height: number; depth: number }): MeshData {
  const sizes = [width, height, depth] as const;
  const builder = new PatchBuilder();
  CUBE_SIDES.forEach(({ name, normal, right, up }, index) => {
    builder.patch(WALL_NAMES[name] ?? name, 1, 1, (u, v) => {
      // From inside, right is on the other hand.
      const on = (axis: 0 | 1 | 2): number => (normal[axis] * 0.5 + right[axis] * (0.5 - u) + up[axis] * (0.5 - v)) * sizes[axis];
      return {
        position: [on(0), on(1), on(2)],
        normal: [-normal[0], -normal[1], -normal[2]],
        tangent: [-right[0], -right[1], -right[2]],
        uv2: [((index % 3) + u) / 3, (Math.floor(index / 3) + v) / 2],
      };
    });
  });
  return builder.finish({ closed: true });
}
