import { disc, turned } from '../lathe';
import type { MeshData } from '../mesh';
import { PatchBuilder } from '../patch';

/** A cone that stands on its base, the point up. */
export function cone({ radius, height, segments }: { radius: number; height: number; segments: number }): MeshData {
  const slope = Math.hypot(radius, height);
  return new PatchBuilder()
    .patch('side', segments, 8, (u, v) =>
      turned({ radius: radius * v, height: height * (0.5 - v), normal: [height / slope, radius / slope] }, u),
    )
    .patch('bottom', segments, 1, disc(radius, -height / 2, 'down'))
    .finish({ closed: true });
}
