import type { SetMesh, StageSet } from '@brelvin/contract';

type Meshes = StageSet['meshes'];

/** Ids of all fields that meshes of a set show. */
export function fieldsOf({ meshes }: Pick<StageSet, 'meshes'>): ReadonlySet<string> {
  return new Set(Object.values(meshes).flatMap(({ shape, field }) => (shape === 'field' && field !== undefined ? [field] : [])));
}

/**
 * Meshes with the texts of the fields that they show; one without a text shows a field that is not there. Nothing that is as
 * it was is another object.
 */
export function withFields(meshes: Meshes, textOf: (id: string) => string | undefined): Meshes {
  if (fieldsOf({ meshes }).size === 0) return meshes;
  return Object.fromEntries(
    Object.entries(meshes).map(([id, mesh]) => [
      id,
      mesh.shape === 'field' && mesh.field !== undefined ? withText(mesh, textOf(mesh.field)) : mesh,
    ]),
  );
}

/** The last one that was made of each. */
const MADE = new WeakMap<SetMesh, SetMesh>();

function withText(mesh: SetMesh, formula: string | undefined): SetMesh {
  const last = MADE.get(mesh);
  if (last && last.formula === formula) return last;
  const { formula: _own, ...rest } = mesh;
  const made = formula === undefined ? rest : { ...rest, formula };
  MADE.set(mesh, made);
  return made;
}
