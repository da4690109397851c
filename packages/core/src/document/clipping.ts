import {
  type Change,
  type Clipping,
  CLIPPING,
  CLIPPING_VERSION,
  type Graph,
  type GraphNode,
  type Json,
  type Material,
  type NodeGroup,
  type Ribbon,
  validate,
} from '@brelvin/contract';
import type { Edit } from './edit';
import { inletKey, inletOf } from './graph';
import type { GraphEdits } from './graph-edits';
import { incomingRibbons } from './incoming-ribbons';

/** What is pasted is not from a Brelvin graph, or damaged. */
export class ForeignClipping extends Error {}

/** Copies nodes, areas and notes with the ribbons between them. */
export function clip(material: Material, edits: GraphEdits, ids: ReadonlySet<string>): Clipping {
  const graph = edits.graphOf(material);
  const chosen = <T>(record: Readonly<Record<string, T>>): Record<string, T> =>
    Object.fromEntries([...ids].flatMap((id): [string, T][] => (Object.hasOwn(record, id) ? [[id, record[id] as T]] : [])));
  const nodes = chosen(graph.nodes);
  const ribbons = ribbonsInto(graph, ids).filter(([, { from }]) => ids.has(from));
  const groups = groupsUnder(material, Object.values(nodes));
  const all = [...Object.values(nodes), ...Object.values(groups).flatMap((group) => Object.values(group.graph.nodes))];
  const used = <T>(record: Readonly<Record<string, T>>, field: 'parameter' | 'image'): Record<string, T> => {
    const wanted = new Set(all.map((node) => node[field]));
    return Object.fromEntries(Object.entries(record).filter(([id]) => wanted.has(id)));
  };
  return {
    format: 'brelvin-nodes',
    version: CLIPPING_VERSION,
    nodes,
    ribbons: Object.fromEntries(ribbons),
    areas: chosen(graph.areas),
    notes: chosen(graph.notes),
    parameters: used(material.parameters, 'parameter'),
    groups,
    images: used(material.images, 'image'),
  };
}

/** All groups that nodes stand for, those inside of them included. */
export function groupsUnder(material: Pick<Material, 'groups'>, nodes: readonly GraphNode[]): Record<string, NodeGroup> {
  const found: Record<string, NodeGroup> = {};
  const waiting = [...nodes];
  for (let node = waiting.pop(); node; node = waiting.pop()) {
    const group = node.group === undefined ? undefined : material.groups[node.group];
    if (!group || node.group === undefined || Object.hasOwn(found, node.group)) continue;
    found[node.group] = group;
    waiting.push(...Object.values(group.graph.nodes));
  }
  return found;
}

/** @throws ForeignClipping with what is wrong */
export function parseClipping(text: string): Clipping {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new ForeignClipping('The clipboard holds text that is not nodes. Copy nodes from a graph first.');
  }
  const [problem] = validate(CLIPPING, value);
  if (problem) throw new ForeignClipping(`The clipboard holds no nodes that can be read: ${problem.place || 'it'} ${problem.message}.`);
  return value as Clipping;
}

export interface PasteOptions {
  readonly newId: () => string;
  /** How far everything is moved. */
  readonly dx: number;
  readonly dy: number;
  readonly label?: string;
}

export interface Pasted {
  readonly edit: Edit;
  /** Fresh ids of what was pasted, by the ids it had. */
  readonly names: ReadonlyMap<string, string>;
}

/**
 * Puts a clipping into a graph under fresh ids. Ribbons from nodes that are not in it are dropped; parameters,
 * groups and images that the material already has are used again.
 *
 * @throws ForeignClipping when it would put a group into itself
 */
export function paste(material: Material, edits: GraphEdits, clipping: Clipping, { newId, dx, dy, label = 'Paste' }: PasteOptions): Pasted {
  if (edits.group !== undefined && Object.hasOwn(groupsUnder(clipping, Object.values(clipping.nodes)), edits.group)) {
    throw new ForeignClipping('A group cannot be put inside itself. Paste it outside.');
  }
  const extra: Change[] = [];
  const adopt = <T>(what: 'parameters' | 'groups' | 'images', theirs: Readonly<Record<string, T>>): Map<string, string> => {
    const ours = material[what] as Readonly<Record<string, unknown>>;
    return new Map(
      Object.entries(theirs).map(([id, value]) => {
        const there = ours[id];
        const same = there !== undefined && (what === 'parameters' || JSON.stringify(there) === JSON.stringify(value));
        const name = there === undefined || same ? id : newId();
        if (!same) extra.push({ path: [what, name], value: value as unknown as Json });
        return [id, name];
      }),
    );
  };
  const parameters = adopt('parameters', clipping.parameters);
  const images = adopt('images', clipping.images);
  const groups = adopt('groups', clipping.groups);
  const renamed = (map: ReadonlyMap<string, string>, id: string): string => map.get(id) ?? id;
  const rewired = (node: GraphNode): GraphNode => ({
    ...node,
    ...(node.parameter === undefined ? {} : { parameter: renamed(parameters, node.parameter) }),
    ...(node.image === undefined ? {} : { image: renamed(images, node.image) }),
    ...(node.group === undefined ? {} : { group: renamed(groups, node.group) }),
  });
  // Groups that came along read what was renamed, too.
  const settled = extra.map((change): Change => {
    if (change.path[0] !== 'groups') return change;
    const group = change.value as unknown as NodeGroup;
    const inside = Object.entries(group.graph.nodes).map(([id, node]) => [id, rewired(node)]);
    return { ...change, value: { ...group, graph: { ...group.graph, nodes: Object.fromEntries(inside) as object } } as unknown as Json };
  });
  const ids = new Map(
    [...Object.keys(clipping.nodes), ...Object.keys(clipping.areas), ...Object.keys(clipping.notes)].map((id) => [id, newId()]),
  );
  const fresh = (id: string): string => ids.get(id) ?? id;
  const moved = <T extends { x: number; y: number }>(each: T): T => ({ ...each, x: Math.round(each.x + dx), y: Math.round(each.y + dy) });
  const changes: Change[] = [
    ...settled,
    ...Object.entries(clipping.nodes).map(([id, node]) => edits.putNode(fresh(id), moved(rewired(node)))),
    ...Object.entries(clipping.areas).flatMap(([id, area]) => edits.putArea(fresh(id), moved(area)).changes),
    ...Object.entries(clipping.notes).flatMap(([id, note]) => edits.putNote(fresh(id), moved(note)).changes),
    ...Object.entries(clipping.ribbons).flatMap(([key, ribbon]): readonly Change[] => {
      const { node, inlet } = inletOf(key);
      if (!ids.has(node) || !ids.has(ribbon.from)) return [];
      const to = { node: fresh(node), inlet };
      const bends = ribbon.bends?.map(([x = 0, y = 0]) => [x + dx, y + dy]) ?? [];
      const run = edits.connect({ node: fresh(ribbon.from), outlet: ribbon.outlet }, to).changes;
      return bends.length > 0 ? [...run, ...edits.setBends(to, bends).changes] : run;
    }),
  ];
  return { edit: { label, changes }, names: ids };
}

/** A copy next to the original in the same graph; what runs in from outside runs into the copy too. */
export function duplicate(material: Material, edits: GraphEdits, chosen: ReadonlySet<string>, newId: () => string): Pasted {
  const { edit, names } = paste(material, edits, clip(material, edits, chosen), { newId, dx: 30, dy: 30, label: 'Duplicate' });
  const incoming = ribbonsInto(edits.graphOf(material), chosen).flatMap(([key, ribbon]): readonly Change[] => {
    const { node, inlet } = inletOf(key);
    const copy = names.get(node);
    if (copy === undefined || names.has(ribbon.from)) return [];
    return edits.connect({ node: ribbon.from, outlet: ribbon.outlet }, { node: copy, inlet }).changes;
  });
  return { edit: { ...edit, changes: [...edit.changes, ...incoming] }, names };
}

/** The ribbons that run into some nodes; costs as much as there are, once the graph's ribbons are sorted. */
function ribbonsInto(graph: Graph, nodes: ReadonlySet<string>): [string, Ribbon][] {
  const incoming = incomingRibbons(graph);
  return [...nodes].flatMap((node) =>
    (incoming.get(node) ?? []).flatMap(({ inlet }): [string, Ribbon][] => {
      const key = inletKey(node, inlet);
      const ribbon = graph.ribbons[key];
      return ribbon ? [[key, ribbon]] : [];
    }),
  );
}
