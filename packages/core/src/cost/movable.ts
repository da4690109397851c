import type { Material } from '@brelvin/contract';
import { CARRY_KIND } from '../catalogue/kind';
import { MOST_CARRIED } from '../compile/limits';
import type { ResolvedGraph } from '../compile/resolve';
import { joinEdits, type Edit } from '../document/edit';
import { inletOf } from '../document/graph';
import { GraphEdits } from '../document/graph-edits';
import type { Declare, IrFunction } from '../ir/ir';
import type { Program } from '../ir/program';
import { walkExpression } from '../ir/walk';
import { evennessOf } from './evenness';
import type { Cost } from './cost';

/** A node that is computed at every pixel though that need not be. */
export interface Movable {
  /** Its path. */
  readonly node: string;
  /** Of the node, with all before it that nothing else needs at pixels; per pixel. */
  readonly saves: Cost;
  /** How often it would be enough. */
  readonly to: 'vertex' | 'frame';
  /** Has it carried from the vertices, the same picture to the last bit but rounding; absent where that is not safe or finds no room. */
  readonly mend?: Edit;
}

/** Instructions below which carrying a value costs as much as computing it. */
const WORTH = 4;
/** Components of what can be carried. */
const WIDTHS: Readonly<Record<string, number>> = { number: 1, vec2: 2, vec3: 3, vec4: 4 };
/** From a node’s place, pixels of the graph. */
const BESIDE = { x: 40, y: -70 };

/** What could be computed less often, dearest first. */
export function movableNodes(
  material: Material,
  resolved: ResolvedGraph,
  program: Program,
  costs: ReadonlyMap<string, Cost>,
  newId: () => string,
): readonly Movable[] {
  const { fragment } = program;
  const painter = fragment.functions.find(({ name }) => name === PAINTER);
  if (!painter) return [];
  const line = painter.body.filter((each): each is Declare => each.op === 'declare' && each.origin?.path !== undefined);
  const evenness = evennessOf(line, {
    functions: new Map(fragment.functions.map((each) => [each.signature, each])),
    inputs: new Map(fragment.inputs.map((each) => [each.name, each])),
    uniforms: new Set(fragment.blocks.flatMap(({ members }) => members.map(({ name }) => name))),
  });
  const carried = [...resolved.nodes.values()].filter(({ kind }) => kind.id === CARRY_KIND).length;
  const readers = readersOf(painter);
  const found = line.flatMap((declared): Movable[] => {
    const node = declared.origin?.path ?? '';
    const how = evenness.get(declared.name);
    const isNode = resolved.nodes.has(node) && !resolved.nodes.get(node)?.port;
    if (!isNode || (how !== 'same' && how !== 'even')) return [];
    // Of a chain its end is carried: what is before it goes along.
    const isEnd = [...(readers.get(declared.name) ?? [])].some((reader) => reader === RESULT || evenness.get(reader) === 'other');
    if (how === 'even' && !isEnd) return [];
    const saves = chainCost(declared, line, evenness, readers, costs);
    if (saves.instructions < WORTH) return [];
    const mend = how === 'even' && carried < MOST_CARRIED ? carry(material, resolved, node, newId) : undefined;
    return [{ node, saves, to: how === 'even' ? 'vertex' : 'frame', ...(mend ? { mend } : {}) }];
  });
  return found.sort((a, b) => b.saves.instructions - a.saves.instructions);
}

const PAINTER = 'paintSurface';
/** Stands for what the painter gives. */
const RESULT = '';

/** Which declarations read each local. */
function readersOf({ body }: IrFunction): ReadonlyMap<string, ReadonlySet<string>> {
  const readers = new Map<string, Set<string>>();
  for (const statement of body) {
    const [reader, value] =
      statement.op === 'declare' ? [statement.name, statement.value] : [RESULT, statement.op === 'return' ? statement.value : undefined];
    if (!value) continue;
    walkExpression(value, (each) => {
      if (each.op !== 'reference' || each.scope !== 'local') return;
      const known = readers.get(each.name) ?? new Set();
      readers.set(each.name, known.add(reader));
    });
  }
  return readers;
}

/** Of a declaration and of those before it that only it needs. */
function chainCost(
  end: Declare,
  line: readonly Declare[],
  evenness: ReadonlyMap<string, string>,
  readers: ReadonlyMap<string, ReadonlySet<string>>,
  costs: ReadonlyMap<string, Cost>,
): Cost {
  const chain = new Set([end.name]);
  let instructions = 0;
  for (const declared of [...line].reverse()) {
    const only = [...(readers.get(declared.name) ?? [])].every((reader) => chain.has(reader));
    if (declared !== end && !(only && readers.has(declared.name) && evenness.get(declared.name) === 'even')) continue;
    chain.add(declared.name);
    instructions += costs.get(declared.origin?.path ?? '')?.instructions ?? 0;
  }
  return { instructions, reads: 0 };
}

/** Puts a node that carries behind the widest outlet of another: a number beside a vector is cheap where it is. */
function carry(material: Material, resolved: ResolvedGraph, path: string, newId: () => string): Edit | undefined {
  const node = resolved.nodes.get(path);
  if (!node) return undefined;
  const { home, outlets } = node;
  const width = (outlet: string): number => WIDTHS[outlets[outlet] ?? ''] ?? 0;
  const outlet = Object.keys(outlets).reduce((best, each) => (width(each) > width(best) ? each : best), '');
  const edits = new GraphEdits(home.group);
  const graph = edits.graphOf(material);
  const from = graph.nodes[home.node];
  const readers = Object.entries(graph.ribbons)
    .filter(([, ribbon]) => ribbon.from === home.node && ribbon.outlet === outlet)
    .map(([key]) => inletOf(key));
  // An image on the second UVs takes them by the transform before it.
  const second = readers.some((to) => material.images[graph.nodes[to.node]?.image ?? '']?.uvSet === 1);
  if (!from || width(outlet) === 0 || readers.length === 0 || second) return undefined;
  const id = newId();
  return joinEdits(
    'Carry a value from the vertices',
    edits.addNode(id, { kind: CARRY_KIND, rev: 1, x: from.x + BESIDE.x, y: from.y + BESIDE.y, values: {} }, 'Carry to pixels'),
    edits.connect({ node: home.node, outlet }, { node: id, inlet: 'value' }),
    ...readers.map((to) => edits.connect({ node: id, outlet: 'result' }, to)),
  );
}
