import type { MeshData } from '../mesh';
import { PatchBuilder } from '../patch';

/** A sphere round the origin; u runs once round to the east, v from the north pole to the south pole. */
export function sphere({ radius, segments, rings }: { radius: number; segments: number; rings: number }): MeshData {
  return new PatchBuilder()
    .patch('sphere', segments, rings, (u, v) => {
      const around = u * 2 * Math.PI;
      const down = v * Math.PI;
      // The seam lies at the back (−z).
      const east = [-Math.cos(around), 0, Math.sin(around)] as const;
      const normal = [-Math.sin(around) * Math.sin(down), Math.cos(down), -Math.cos(around) * Math.sin(down)] as const;
      return { position: [normal[0] * radius, normal[1] * radius, normal[2] * radius], normal, tangent: east };
    })
    .finish({ closed: true });
}
