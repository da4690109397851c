import type { SetMesh } from '@brelvin/contract';
import { setMesh } from '../document/set-edits';
import { FIELD_NUMBERS, fieldSource, fieldText, type FieldSource } from '../mesh/field-source';
import { meshNumber } from '../mesh/mesh-number';
import { FormulaError } from '../mesh/formula';
import type { Check, Finding } from './check';

/** As much more than what is said as a measured slope may be, before rays are sure to pass through. */
const HARDLY_MORE = 1.1;

/** Fields that are not there, not where they are looked for, or steeper than is said. */
export const tracedFields: Check = {
  id: 'traced-fields',
  find: ({ set }) =>
    Object.entries(set?.meshes ?? {}).flatMap(([id, mesh]) => {
      if (mesh.shape !== 'field') return [];
      if (fieldText(mesh) === undefined) return notHere(id, mesh);
      const source = measuredOf(mesh);
      return source ? [...nothingThere(id, mesh, source), ...tooSteep(id, mesh, source)] : [];
    }),
};

function notHere(id: string, mesh: SetMesh): Omit<Finding, 'check'>[] {
  return [
    {
      place: `mesh/${id}`,
      title: `The field that “${mesh.name}” shows is not here.`,
      explanation: 'It was deleted, or is still on its way. Restore it in the Library under Fields, or let the mesh show another one.',
      mend: { label: 'Begin one here', document: 'set', edit: setMesh(id, ['field'], undefined, `Begin ${mesh.name} anew`) },
    },
  ];
}

function nothingThere(id: string, mesh: SetMesh, { empty }: FieldSource): Omit<Finding, 'check'>[] {
  if (!empty) return [];
  return [
    {
      place: `mesh/${id}`,
      title: `“${mesh.name}” has no surface in its box.`,
      explanation:
        'A field is looked for in a box round its origin, and nowhere in it is its distance 0. Make the box larger, move what is there to the origin, or look whether the distance is below 0 inside and above 0 outside.',
    },
  ];
}

function tooSteep(id: string, mesh: SetMesh, { slope }: FieldSource): Omit<Finding, 'check'>[] {
  const spec = FIELD_NUMBERS.find(({ name }) => name === 'slope');
  const said = spec ? meshNumber(spec, mesh.numbers['slope']) : 0;
  if (said === 0 || slope <= Math.max(said, 1) * HARDLY_MORE) return [];
  return [
    {
      place: `mesh/${id}`,
      title: `“${mesh.name}” is steeper than is said: ${slope.toFixed(1)} instead of ${said}.`,
      explanation:
        'Its value grows by more than a metre over a metre, as that of displaced, twisted or bent space does. Steps along the line of sight are then too long, and holes and noise are seen. With 0 the slope is measured, and steps are shorter by as much.',
      mend: { label: 'Measure it', document: 'set', edit: setMesh(id, ['numbers', 'slope'], 0, `Measure the slope of ${mesh.name}`) },
    },
  ];
}

const known = new WeakMap<SetMesh, FieldSource>();

/** A field with the slope that it has, whatever is said of it; nothing of a text that cannot be read. */
function measuredOf(mesh: SetMesh): FieldSource | undefined {
  const found = known.get(mesh);
  if (found) return found;
  const text = fieldText(mesh);
  if (text === undefined) return undefined;
  try {
    const source = fieldSource(text, { ...mesh.numbers, slope: 0 });
    known.set(mesh, source);
    return source;
  } catch (error) {
    // What is wrong with a text is said where it is written.
    if (error instanceof FormulaError) return undefined;
    throw error;
  }
}
