import type { SetMesh } from '@brelvin/contract';
import { reachesAny } from '../compile/graph-order';
import { DOCK } from '../document/graph';
import { setMesh } from '../document/set-edits';
import { buildMesh, MESH_SHAPES, type MeshRecipe } from '../mesh/build-mesh';
import { meshNumber } from '../mesh/mesh-number';
import { FormulaError } from '../mesh/formula';
import { uvGap } from '../mesh/uv-gap';
import type { Check, CheckInput, Mend } from './check';
import { meshesWearing } from './dressed-parts';

/** Vertices along a picture below which a relief falls between them. */
const FEWEST = 90;
const WANTED = 160;

/** A height moves vertices of a mesh that has too few of them. */
export const fewSegments: Check = {
  id: 'few-segments',
  find: (input) => {
    const { set } = input;
    if (!set || !isDisplaced(input)) return [];
    return meshesWearing(input).flatMap((id) => {
      const mesh = set.meshes[id];
      const gap = mesh && gapOf(mesh);
      if (!mesh || !gap || gap < 1 / FEWEST) return [];
      const along = Math.max(1, Math.round(1 / gap));
      return [
        {
          place: `mesh/${id}`,
          title: `“${mesh.name}” has about ${along} vertices along the image: too few for displacement.`,
          explanation:
            'Displacement moves vertices: between two of them the surface stays flat, so fine relief is lost and edges look faceted. Give the mesh more segments, or use the height map for normals only.',
          mend: moreSegments(id, mesh, gap),
        },
      ];
    });
  },
};

/** Whether an image has a say in where vertices go. */
function isDisplaced({ resolved }: CheckInput): boolean {
  const before = reachesAny(resolved.incoming, [DOCK], (node, inlet) => node !== DOCK || inlet === 'offset');
  return [...before].some((id) => resolved.nodes.get(id)?.kind.inlets.some(({ meaning }) => meaning === 'image'));
}

function moreSegments(id: string, mesh: SetMesh, gap: number): Mend | undefined {
  const counts = MESH_SHAPES[mesh.shape].numbers.filter(({ whole, name }) => whole && !['turns', 'windings'].includes(name));
  const more = gap * WANTED;
  const next = Object.fromEntries(counts.map((spec) => [spec.name, meshNumber(spec, meshNumber(spec, mesh.numbers[spec.name]) * more)]));
  if (counts.every((spec) => next[spec.name] === meshNumber(spec, mesh.numbers[spec.name]))) return undefined;
  const words = counts.map(({ name, label }) => `${next[name]} ${label.toLowerCase()}`).join(', ');
  return {
    label: `Give it ${words}`,
    document: 'set',
    edit: setMesh(id, ['numbers'], { ...mesh.numbers, ...next }, `More segments for ${mesh.name}`),
  };
}

const gaps = new WeakMap<MeshRecipe['numbers'], { readonly recipe: MeshRecipe; readonly gap: number }>();

/** How far apart vertices lie in UV, on average; 0 where that cannot be told. */
function gapOf(mesh: SetMesh): number {
  if (mesh.source) return mesh.source.gap;
  // It has no vertices.
  if (mesh.shape === 'field') return 0;
  const known = gaps.get(mesh.numbers);
  if (known && known.recipe.shape === mesh.shape && known.recipe.formula === mesh.formula) return known.gap;
  let gap = 0;
  try {
    gap = uvGap(buildMesh(mesh));
  } catch (error) {
    if (!(error instanceof FormulaError)) throw error;
  }
  gaps.set(mesh.numbers, { recipe: mesh, gap });
  return gap;
}
