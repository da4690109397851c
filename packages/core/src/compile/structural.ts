import type { Graph } from '../document/graph';
import type { MaterialSource } from '../document/material';
import type { Change } from '../document/transaction';
import type { BakedInlet } from './lower';

/**
 * Whether changes to a material may ask for another program. Numbers, colours, places of nodes, names, images'
 * pixels and ranges never do, except where a number found no room in the uniform block.
 */
export function isStructural(changes: readonly Change[], baked: readonly BakedInlet[] = []): boolean {
  return changes.some((change) => {
    const [top, id, field] = change.path;
    switch (top) {
      case 'surface':
        return graphChanges(change, 1, undefined, baked);
      case 'groups':
        if (field === 'graph') return graphChanges(change, 3, id, baked);
        return (
          field !== 'title' &&
          field !== 'help' &&
          !(change.path.length === 5 && ['label', 'order', 'low', 'high'].includes(change.path[4] ?? ''))
        );
      case 'code':
        return true;
      case 'parameters':
        return (
          change.path.length === 2 ||
          field === 'type' ||
          field === 'uniform' ||
          field === 'image' ||
          (field === 'value' && baked.length > 0)
        );
      case 'opacity':
        return true;
      case 'outline':
        return id === undefined || id === 'method';
      case 'images':
        return field === undefined || field === 'uvSet';
      default:
        return false;
    }
  });
}

function graphChanges({ path, value }: Change, depth: number, group: string | undefined, baked: readonly BakedInlet[]): boolean {
  const [what, id, field, inlet] = path.slice(depth);
  if (what === 'areas' || what === 'notes' || field === 'bends') return false;
  if (what !== 'nodes' || field === undefined) return true;
  if (field === 'x' || field === 'y' || field === 'name' || field === 'preview') return false;
  if (field !== 'values') return true;
  // A value appearing or going only matters where it takes the place of one from the surface (a normal).
  if (value === undefined || inlet === undefined) return true;
  return baked.some((each) => each.home.group === group && each.home.node === id && each.inlet === inlet);
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

const STRUCTURAL_FIELDS = ['kind', 'rev', 'name', 'parameter', 'group', 'image', 'code', 'features'] as const;
