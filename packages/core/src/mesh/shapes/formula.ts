import { heightOf, placeOf, readFormula } from '../formula';
import type { MeshData } from '../mesh';
import { surfacePoint } from '../parametric';
import { PatchBuilder } from '../patch';

/** Formulas are computed in 32 bits; a smaller step would drown in rounding. */
const STEP = 2e-3;

export const HEIGHT_FORMULA = '0.25 * sin(3.0 * x) * cos(3.0 * z)';
export const SURFACE_FORMULA =
  'vec3((0.7 + 0.3 * cos(6.2832 * v)) * cos(6.2832 * u), 0.3 * sin(6.2832 * v) + 0.5 * u, (0.7 + 0.3 * cos(6.2832 * v)) * sin(6.2832 * u))';

/** A height y = f(x, z) over a square; both of its sides are seen. */
export function heightMesh({ size, segments }: { size: number; segments: number }, text: string): MeshData {
  const formula = readFormula('height', text);
  return new PatchBuilder()
    .patch('height', segments, segments, (u, v) =>
      surfacePoint((s, t) => heightOf(formula, (s - 0.5) * size, (t - 0.5) * size), u, v, STEP),
    )
    .finish({ closed: false });
}

/** A surface (u, v) → (x, y, z), both 0…1; both of its sides are seen. */
export function surfaceMesh({ segments }: { segments: number }, text: string): MeshData {
  const formula = readFormula('surface', text);
  return new PatchBuilder()
    .patch('surface', segments, segments, (u, v) => surfacePoint((s, t) => placeOf(formula, s, t), u, v, STEP))
    .finish({ closed: false });
}
