import type { SetMesh } from '@brelvin/contract';
import { dressPart } from '../document/set-edits';
import { buildMesh, MESH_SHAPES } from '../mesh/build-mesh';
import { FormulaError } from '../mesh/formula';
import type { Check } from './check';
import { dressedParts } from './dressed-parts';

/** Of the mesh's size: more would pull a part through to the other side. */
const MOST = 0.25;

/** A part counts as so much nearer that it is seen through the whole of what it lies on. */
export const depthOffset: Check = {
  id: 'depth-offset',
  find: (input) => {
    const { set, newId } = input;
    if (!set) return [];
    return dressedParts(input).flatMap(({ mesh, part, dress }) => {
      const found = set.meshes[mesh];
      if (!found || dress.depthOffset === 0) return [];
      const most = Math.round(sizeOf(found) * MOST * 100) / 100;
      if (Math.abs(dress.depthOffset) <= most) return [];
      return [
        {
          place: `part/${mesh}/${part}`,
          title: `“${part}” counts as ${Math.abs(dress.depthOffset)} m ${dress.depthOffset > 0 ? 'nearer' : 'farther'}; that is more than a quarter of its mesh.`,
          explanation:
            'A depth offset draws a part in front of what it lies on, as eyes over hair. With an offset this large it is also seen from the other side, through everything in between.',
          mend: {
            label: `Bring it to ${most} m`,
            document: 'set' as const,
            edit: dressPart(set, mesh, part, 'depthOffset', Math.sign(dress.depthOffset) * most, newId),
          },
        },
      ];
    });
  },
};

const measured = new WeakMap<SetMesh, number>();

/** The longest side of a mesh's bounds, metres. */
function sizeOf(mesh: SetMesh): number {
  const known = measured.get(mesh);
  if (known !== undefined) return known;
  let size = Infinity;
  try {
    const few = Object.fromEntries(
      MESH_SHAPES[mesh.shape].numbers.filter(({ whole }) => whole).map(({ name, low }) => [name, Math.max(low, 8)]),
    );
    const { low, high } = buildMesh({ ...mesh, numbers: { ...mesh.numbers, ...few } }).bounds;
    size = Math.max(...high.map((each, axis) => (each - (low[axis] ?? 0)) * Math.abs(mesh.placing.scale[axis] ?? 1)));
  } catch (error) {
    if (!(error instanceof FormulaError)) throw error;
  }
  measured.set(mesh, size);
  return size;
}
