import type { MeshData } from '../mesh';
import { PatchBuilder } from '../patch';

/** A sheet that stands upright and faces +z. */
export function plane({ width, height, segments }: { width: number; height: number; segments: number }): MeshData {
  return new PatchBuilder()
    .patch('plane', segments, segments, (u, v) => ({
      position: [(u - 0.5) * width, (0.5 - v) * height, 0],
      normal: [0, 0, 1],
      tangent: [1, 0, 0],
    }))
    .finish({ closed: false });
}
