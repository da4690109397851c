import type { Graph, GraphNode, InletValue, Material } from '@brelvin/contract';
import { library } from '../catalogue/library';
import { resolveGraph } from '../compile/resolve';
import { TypedGraph } from '../compile/typed-graph';
import type { Edit } from '../document/edit';
import { EMPTY_GRAPH } from '../document/graph';
import { newMaterial } from '../document/new-documents';
import { applyChanges } from '../document/transaction';

/** A graph in short: nodes as kind, or kind and values; ribbons as `inlet key → node.outlet` (outlet `result`). */
export function shortGraph(
  nodes: Record<string, string | [string, Record<string, InletValue>]>,
  ribbons: Record<string, string> = {},
): Graph {
  return {
    ...EMPTY_GRAPH,
    nodes: Object.fromEntries(
      Object.entries(nodes).map(([id, node], index): [string, GraphNode] => {
        const [kind, values] = typeof node === 'string' ? [node, {}] : node;
        return [id, { kind, rev: 1, x: index * 200, y: 0, values, ...(kind === 'parameter' ? { parameter: id } : {}) }];
      }),
    ),
    ribbons: Object.fromEntries(
      Object.entries(ribbons).map(([inlet, from]) => {
        const [node = '', outlet = 'result'] = from.split('.');
        return [inlet, { from: node, outlet }];
      }),
    ),
  };
}

export function materialOf(...parts: Parameters<typeof shortGraph>): Material {
  return { ...newMaterial('m'), surface: shortGraph(...parts) };
}

export function typed(material: Material, group?: string, path?: string): TypedGraph {
  return new TypedGraph(material, library(), resolveGraph(material, library()), group, path);
}

export function edited(material: Material, edit: Edit | undefined): Material {
  if (!edit) throw new Error('there is no edit');
  return applyChanges(material, edit.changes);
}

/** Ribbons in short: `inlet key ← node.outlet`. */
export function ribbonsOf({ ribbons }: Graph): string[] {
  return Object.entries(ribbons)
    .map(([key, ribbon]) => `${key} ← ${ribbon.from}.${ribbon.outlet}`)
    .sort();
}

/** Ids in order: i0, i1 … */
export function countingIds(): () => string {
  let count = 0;
  return () => `i${count++}`;
}
