import type { MeshData } from '../mesh';
import { surfacePoint } from '../parametric';
import { PatchBuilder } from '../patch';

export interface SheetNumbers {
  readonly width: number;
  readonly height: number;
  /** How far it bellies, metres. */
  readonly wave: number;
  readonly segments: number;
}

/** A thin cloth that hangs in a wave; both of its sides are seen. */
export function sheet({ width, height, wave, segments }: SheetNumbers): MeshData {
  return new PatchBuilder()
    .patch('sheet', segments, segments, (u, v) =>
      surfacePoint((s, t) => [(s - 0.5) * width, (0.5 - t) * height, wave * Math.sin(s * 2 * Math.PI + t * 1.5) * (0.25 + 0.75 * t)], u, v),
    )
    .finish({ closed: false });
}
