import type { SetMesh } from '@brelvin/contract';
import type { Edit } from '../document/edit';
import { setMesh } from '../document/set-edits';
import { buildMesh, MESH_SHAPES } from '../mesh/build-mesh';
import { facesInwards } from '../mesh/enclosed-volume';
import { FormulaError } from '../mesh/formula';
import type { Check } from './check';

/** A mesh whose outside faces inwards: a typed surface, or one of a file. */
export const insideOut: Check = {
  id: 'inside-out',
  find: ({ set }) =>
    Object.entries(set?.meshes ?? {}).flatMap(([id, mesh]) => {
      if (!isInsideOut(mesh)) return [];
      const imported = mesh.source !== undefined;
      const edit = imported ? setMesh(id, ['turned'], !mesh.turned, `Turn ${mesh.name} out`) : turnedFormula(id, mesh);
      return [
        {
          place: `mesh/${id}`,
          title: `“${mesh.name}” is inside out.`,
          explanation: imported
            ? 'Its faces look inwards: an outline, a displacement or a thickness goes the wrong way. That is right for a room that is seen from inside; otherwise its faces and normals are to be turned.'
            : 'Its fronts face inwards, so it is lit from the wrong side and an outline or a thickness would go the wrong way. u must run to the right and v downwards as seen from outside.',
          mend: { label: 'Turn it out', document: 'set' as const, edit },
        },
      ];
    }),
};

function turnedFormula(id: string, mesh: SetMesh): Edit {
  const formula = mesh.formula ?? MESH_SHAPES.surface.formula ?? '';
  const turned = /\breturn\b/.test(formula) ? `u = 1.0 - u; ${formula}` : `u = 1.0 - u; return ${formula};`;
  return setMesh(id, ['formula'], turned, `Turn ${mesh.name} out`);
}

const measured = new WeakMap<SetMesh, boolean>();

function isInsideOut(mesh: SetMesh): boolean {
  if (mesh.source) return (mesh.source.inwards ?? false) !== (mesh.turned ?? false);
  if (mesh.shape !== 'surface') return false;
  const known = measured.get(mesh);
  if (known !== undefined) return known;
  let inwards = false;
  try {
    inwards = facesInwards(buildMesh({ ...mesh, numbers: { segments: 24 }, smooth: true }));
  } catch (error) {
    if (!(error instanceof FormulaError)) throw error;
  }
  measured.set(mesh, inwards);
  return inwards;
}
