import type { SetMesh } from '@brelvin/contract';
import { setMesh } from '../document/set-edits';
import { buildMesh, MESH_SHAPES } from '../mesh/build-mesh';
import { FormulaError } from '../mesh/formula';
import type { MeshData } from '../mesh/mesh';
import type { Check } from './check';

/** A typed surface whose outside faces inwards. */
export const insideOut: Check = {
  id: 'inside-out',
  find: ({ set }) =>
    Object.entries(set?.meshes ?? {}).flatMap(([id, mesh]) => {
      if (mesh.shape !== 'surface' || !facesInwards(mesh)) return [];
      const formula = mesh.formula ?? MESH_SHAPES.surface.formula ?? '';
      const turned = /\breturn\b/.test(formula) ? `u = 1.0 - u; ${formula}` : `u = 1.0 - u; return ${formula};`;
      return [
        {
          place: `mesh/${id}`,
          title: `“${mesh.name}” is inside out.`,
          explanation:
            'Its fronts face inwards, so it is lit from the wrong side and an outline or a thickness would go the wrong way. u must run to the right and v downwards as seen from outside.',
          mend: { label: 'Turn it out', document: 'set' as const, edit: setMesh(id, ['formula'], turned, `Turn ${mesh.name} out`) },
        },
      ];
    }),
};

const measured = new WeakMap<SetMesh, boolean>();

/** Whether a closed surface encloses a volume below 0 (divergence theorem, from its triangles). */
function facesInwards(mesh: SetMesh): boolean {
  const known = measured.get(mesh);
  if (known !== undefined) return known;
  let inwards = false;
  try {
    const data = buildMesh({ ...mesh, numbers: { segments: 24 }, smooth: true });
    const { volume, area } = measure(data);
    // An open sheet encloses next to nothing, either way.
    inwards = volume < -0.02 * area ** 1.5;
  } catch (error) {
    if (!(error instanceof FormulaError)) throw error;
  }
  measured.set(mesh, inwards);
  return inwards;
}

function measure({ positions, indices, bounds }: MeshData): { volume: number; area: number } {
  const middle = bounds.low.map((each, axis) => (each + (bounds.high[axis] ?? 0)) / 2);
  let [volume, area] = [0, 0];
  for (let at = 0; at < indices.length; at += 3) {
    const [a, b, c] = [0, 1, 2].map((corner) =>
      [0, 1, 2].map((axis) => (positions[(indices[at + corner] ?? 0) * 3 + axis] ?? 0) - (middle[axis] ?? 0)),
    ) as [number[], number[], number[]];
    volume += dot(a, cross(b, c)) / 6;
    area += Math.hypot(...cross(minus(b, a), minus(c, a))) / 2;
  }
  return { volume, area };
}

const minus = (a: number[], b: number[]): number[] => a.map((each, axis) => each - (b[axis] ?? 0));
const dot = (a: number[], b: number[]): number => a.reduce((sum, each, axis) => sum + each * (b[axis] ?? 0), 0);
function cross([ax = 0, ay = 0, az = 0]: number[], [bx = 0, by = 0, bz = 0]: number[]): number[] {
  return [ay * bz - az * by, az * bx - ax * bz, ax * by - ay * bx];
}
