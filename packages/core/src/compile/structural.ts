import { type Change, effectAt, fieldsOf, type Graph, GRAPH_NODE, type GraphNode, MATERIAL } from '@brelvin/contract';
import type { MaterialSource } from '../document/material';
import type { BakedInlet } from './lower';

/**
 * Whether changes to a material may ask for another program: its schema says of each field what a change can ask for. A
 * number does only where it found no room in the uniform block.
 */
export function isStructural(changes: readonly Change[], baked: readonly BakedInlet[] = []): boolean {
  return changes.some((change) => {
    const effect = effectAt(MATERIAL, change.path);
    return effect === 'structure' || (effect === 'value' && (change.value === undefined || isBaked(change, baked)));
  });
}

/** Whether a value stands in the program: `surface.nodes.n.values.inlet`, `groups.g.graph.nodes.n.values.inlet`, or a parameter's. */
function isBaked({ path }: Change, baked: readonly BakedInlet[]): boolean {
  if (path[0] === 'parameters') return baked.length > 0;
  const [node, , inlet] = path.slice(-3);
  const group = path[0] === 'groups' ? path[1] : undefined;
  return baked.some((each) => each.home.group === group && each.home.node === node && each.inlet === inlet);
}

/** Whether two states of a material resolve alike: the same nodes, ribbons and kinds of parameters, whatever the numbers. */
export function sameStructure(a: MaterialSource, b: MaterialSource): boolean {
  if (a === b) return true;
  if (a.code !== b.code || !sameGraph(a.surface, b.surface, a, b)) return false;
  if (a.groups === b.groups) return true;
  const ids = Object.keys(a.groups);
  return (
    ids.length === Object.keys(b.groups).length &&
    ids.every((id) => {
      const [one, other] = [a.groups[id], b.groups[id]];
      if (one === other) return true;
      return (
        one &&
        other &&
        one.inlets === other.inlets &&
        one.outlets === other.outlets &&
        one.title === other.title &&
        one.eachLight === other.eachLight &&
        sameGraph(one.graph, other.graph, a, b)
      );
    })
  );
}

function sameGraph(a: Graph, b: Graph, before: MaterialSource, after: MaterialSource): boolean {
  if (a === b && before.parameters === after.parameters) return true;
  if (a.ribbons !== b.ribbons) return false;
  const ids = Object.keys(a.nodes);
  if (ids.length !== Object.keys(b.nodes).length) return false;
  return ids.every((id) => {
    const [one, other] = [a.nodes[id], b.nodes[id]];
    if (one !== other && STRUCTURAL_FIELDS.some((field) => one?.[field] !== other?.[field])) return false;
    return one?.parameter === undefined || before.parameters[one.parameter]?.type === after.parameters[one.parameter]?.type;
  });
}

/** A node's own name is no structure, but what is resolved bears it. */
const STRUCTURAL_FIELDS = [...fieldsOf(GRAPH_NODE, 'structure'), 'name'] as readonly (keyof GraphNode)[];
