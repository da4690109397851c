import { disc, turned } from '../lathe';
import type { MeshData } from '../mesh';
import { PatchBuilder } from '../patch';

/** A cylinder round the y axis: its side and two lids. */
export function cylinder({ radius, height, segments }: { radius: number; height: number; segments: number }): MeshData {
  return new PatchBuilder()
    .patch('top', segments, 1, disc(radius, height / 2, 'up'))
    .patch('side', segments, 1, (u, v) => turned({ radius, height: height * (0.5 - v), normal: [1, 0] }, u))
    .patch('bottom', segments, 1, disc(radius, -height / 2, 'down'))
    .finish({ closed: true });
}
