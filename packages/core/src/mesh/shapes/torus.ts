import type { MeshData } from '../mesh';
import { PatchBuilder } from '../patch';

export interface TorusNumbers {
  /** From the axis to the middle of the tube. */
  readonly radius: number;
  readonly tube: number;
  readonly segments: number;
  readonly sides: number;
}

/** A ring that lies level; u runs round the axis, v round the tube from its inside over the top. */
export function torus({ radius, tube, segments, sides }: TorusNumbers): MeshData {
  return new PatchBuilder()
    .patch('torus', segments, sides, (u, v) => {
      const around = u * 2 * Math.PI;
      const over = Math.PI - v * 2 * Math.PI;
      const [x, z] = [-Math.sin(around), -Math.cos(around)];
      const [out, up] = [Math.cos(over), Math.sin(over)];
      const distance = radius + tube * out;
      return {
        position: [x * distance, tube * up, z * distance],
        normal: [x * out, up, z * out],
        tangent: [-Math.cos(around), 0, Math.sin(around)],
      };
    })
    .finish({ closed: true });
}
