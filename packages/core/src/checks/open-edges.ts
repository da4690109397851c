import type { SetMesh } from '@brelvin/contract';
import { setMaterialCode } from '../compile/code/code-edits';
import { goWelded, shapeAlongNormal } from '../compile/code/shape-along-normal';
import { reachesAny } from '../compile/graph-order';
import type { ResolvedInlet, ResolvedNode } from '../compile/resolve';
import { joinEdits, type Edit } from '../document/edit';
import { DOCK } from '../document/graph';
import { GraphEdits } from '../document/graph-edits';
import { buildMesh } from '../mesh/build-mesh';
import { FormulaError } from '../mesh/formula';
import { hasSharpEdges } from '../mesh/sharp-edges';
import type { Check, CheckInput } from './check';
import { meshesWearing } from './dressed-parts';
import { placedNodes, placeOf, sourceOf } from './graph-places';

/** Vertices go along the plain normal, of which there are several where faces meet at a sharp edge: there the mesh opens. */
export const openEdges: Check = {
  id: 'open-edges',
  find: (input) => {
    const { set } = input;
    const torn = set
      ? meshesWearing(input)
          .flatMap((id) => set.meshes[id] ?? [])
          .filter(isSharp)
      : [];
    const names = torn.map(({ name }) => `“${name}”`).join(', ');
    if (!names) return [];
    const inCode = codeFinding(input, names);
    if (inCode) return [inCode];
    const before = reachesAny(input.resolved.incoming, [DOCK], (node, inlet) => node !== DOCK || inlet === 'offset');
    return placedNodes(input).flatMap((node) => {
      const moves = before.has(node.id) && node.kind.family === 'Shape';
      return (moves ? node.inlets : [])
        .filter((inlet) => inlet.spec.meaning === 'normal' && isPlainNormal(input, inlet))
        .map((inlet) => ({
          place: placeOf(node, inlet.spec.name),
          node: node.id,
          title: `${node.kind.title} moves vertices along the plain normal: ${names} opens where faces meet at a sharp edge.`,
          explanation: EXPLANATION,
          mend: { label: MEND, document: 'material' as const, edit: putWelded(input, node, inlet) },
        }));
    });
  },
};

const EXPLANATION =
  'At a sharp edge each face has vertices of its own, with a normal of its own. Moved along it they come apart, and what is behind shows through the gap. The welded normal is the same for all of them.';
const MEND = 'Go by the welded normal';

/** The same of a material that is written. */
function codeFinding({ material, catalogue }: CheckInput, names: string): ReturnType<Check['find']>[number] | undefined {
  const { code } = material;
  const ranges = code ? shapeAlongNormal(code, catalogue) : [];
  const [first] = ranges;
  if (!code || !first) return undefined;
  const line = code.text.slice(0, first.from).split('\n').length;
  return {
    place: 'code shape',
    title: `Line ${line}: “shape” moves vertices along the plain normal, and ${names} opens where faces meet at a sharp edge.`,
    explanation: EXPLANATION,
    mend: { label: MEND, document: 'material', edit: setMaterialCode(material, { ...code, text: goWelded(code.text, ranges) }, MEND) },
  };
}

function isPlainNormal(input: CheckInput, inlet: ResolvedInlet): boolean {
  if (inlet.ribbon) return sourceOf(input, inlet)?.kind.id === 'normal';
  return 'surface' in inlet.spec.default && inlet.spec.default.surface === 'normal';
}

function putWelded(input: CheckInput, node: ResolvedNode, inlet: ResolvedInlet): Edit {
  const edits = new GraphEdits(node.home.group);
  const [id, kind] = [input.newId(), input.catalogue.kinds.get('weldedNormal')];
  const [x, y] = [(node.node?.x ?? 0) - 220, (node.node?.y ?? 0) + 60];
  return joinEdits(
    MEND,
    edits.addNode(id, { kind: 'weldedNormal', rev: kind?.rev ?? 1, x, y, values: {} }, kind?.title ?? 'Normal, welded'),
    edits.connect({ node: id, outlet: 'result' }, { node: node.home.node, inlet: inlet.spec.name }),
  );
}

const known = new WeakMap<SetMesh, boolean>();

/** Of a mesh from a file it is not known here, and taken for sharp: along the welded normal it loses nothing. */
function isSharp(mesh: SetMesh): boolean {
  if (mesh.source) return true;
  if (mesh.shape === 'field') return false;
  const found = known.get(mesh);
  if (found !== undefined) return found;
  let sharp = false;
  try {
    sharp = hasSharpEdges(buildMesh(mesh));
  } catch (error) {
    // What is wrong with a formula is said where it is written.
    if (!(error instanceof FormulaError)) throw error;
  }
  known.set(mesh, sharp);
  return sharp;
}
