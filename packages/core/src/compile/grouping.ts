import type { GraphNode, Ribbon, GroupPort, NodeGroup, Material, RibbonType, Change } from '@brelvin/contract';
import { GROUP_KIND } from '../catalogue/kind';
import type { Edit } from '../document/edit';
import { DOCK, EMPTY_GRAPH, ENTRY, inletKey, inletOf, type OutletAddress } from '../document/graph';
import { GraphEdits, graphsOf } from '../document/graph-edits';
import { groupsUnder } from '../document/clipping';
import type { TypedGraph } from './typed-graph';

/** Makes a group of chosen nodes; what ran in and out of them runs through its inlets and outlets. */
export function makeGroup(typed: TypedGraph, chosen: ReadonlySet<string>, newId: () => string): { edit: Edit; node: string } | undefined {
  const { graph, edits } = typed;
  const inside = Object.entries(graph.nodes).filter(([id]) => chosen.has(id));
  if (inside.length === 0) return undefined;
  const [node, group] = [newId(), newId()];
  const left = Math.min(...inside.map(([, each]) => each.x));
  const top = Math.min(...inside.map(([, each]) => each.y));
  const ribbons: Record<string, Ribbon> = {};
  const ports = { inlets: new Ports(), outlets: new Ports() };
  const changes: Change[] = [];
  for (const [key, ribbon] of Object.entries(graph.ribbons)) {
    const to = inletOf(key);
    const source: OutletAddress = { node: ribbon.from, outlet: ribbon.outlet };
    const [startsInside, endsInside] = [chosen.has(ribbon.from), chosen.has(to.node)];
    if (startsInside && endsInside) ribbons[key] = ribbon;
    else if (endsInside) {
      const label = typed.kind(to.node)?.inlets.find((spec) => spec.name === to.inlet)?.label ?? to.inlet;
      const port = ports.inlets.portFor(source, label, typed.outletType(source) ?? 'number');
      ribbons[key] = { from: ENTRY, outlet: port };
      changes.push(...edits.connect(source, { node, inlet: port }).changes);
    } else if (startsInside) {
      const label = typed.kind(ribbon.from)?.outlets.find((each) => each.name === ribbon.outlet)?.label ?? ribbon.outlet;
      const port = ports.outlets.portFor(source, label, typed.outletType(source) ?? 'number');
      ribbons[inletKey(DOCK, port)] = { from: ribbon.from, outlet: ribbon.outlet };
      changes.push(...edits.connect({ node, outlet: port }, to).changes);
    }
  }
  const moved = inside.map(([id, each]): [string, GraphNode] => [id, { ...each, x: each.x - left + 40, y: each.y - top + 40 }]);
  const made: NodeGroup = {
    title: 'Group',
    help: '',
    inlets: ports.inlets.all,
    outlets: ports.outlets.all,
    graph: { ...EMPTY_GRAPH, nodes: Object.fromEntries(moved), ribbons },
  };
  const middle = (axis: 'x' | 'y'): number => Math.round(inside.reduce((sum, [, each]) => sum + each[axis], 0) / inside.length);
  const instance: GraphNode = { kind: GROUP_KIND, rev: 1, group, x: middle('x'), y: middle('y'), values: {} };
  const gone = Object.entries(graph.ribbons)
    .filter(([key, ribbon]) => chosen.has(inletOf(key).node) || chosen.has(ribbon.from))
    .flatMap(([key]) => edits.disconnect(inletOf(key)).changes);
  return {
    node,
    edit: {
      label: 'Make a group',
      changes: [
        ...gone,
        ...inside.map(([id]): Change => ({ path: [...edits.putNode(id, instance).path] })),
        ...putGroup(group, made).changes,
        edits.putNode(node, instance),
        ...changes,
      ],
    },
  };
}

/** Ports in the making: one a source, with labels that differ. */
class Ports {
  readonly all: Record<string, GroupPort> = {};
  private readonly bySource = new Map<string, string>();

  portFor({ node, outlet }: OutletAddress, label: string, type: RibbonType): string {
    const key = inletKey(node, outlet);
    const known = this.bySource.get(key);
    if (known !== undefined) return known;
    const order = this.bySource.size;
    const name = `p${order + 1}`;
    const labels = new Set(Object.values(this.all).map((port) => port.label));
    let free = label;
    for (let count = 2; labels.has(free); count++) free = `${label} ${count}`;
    this.all[name] = { label: free, type, order };
    this.bySource.set(key, name);
    return name;
  }
}

/** Puts the inside of a group in its node's place; the group goes when nothing else stands for it. */
export function unmakeGroup(typed: TypedGraph, id: string, newId: () => string): { edit: Edit; nodes: string[] } | undefined {
  const { graph, edits, material } = typed;
  const instance = graph.nodes[id];
  const group = material.groups[instance?.group ?? ''];
  if (!instance || instance.group === undefined || !group) return undefined;
  const names = new Map(Object.keys(group.graph.nodes).map((each) => [each, newId()]));
  const fresh = (each: string): string => names.get(each) ?? each;
  const nodes = Object.entries(group.graph.nodes);
  const left = Math.min(...nodes.map(([, each]) => each.x));
  const top = Math.min(...nodes.map(([, each]) => each.y));
  const put = new Map(
    nodes.map(([each, node]) => [each, { ...node, x: Math.round(instance.x + node.x - left), y: Math.round(instance.y + node.y - top) }]),
  );
  const outer = (port: string): OutletAddress | undefined => typed.sourceOf({ node: id, inlet: port });
  /** Where an outlet inside comes from, once the group is gone. */
  const source = (from: OutletAddress): OutletAddress | undefined =>
    from.node === ENTRY ? outer(from.outlet) : { node: fresh(from.node), outlet: from.outlet };
  const runs: Change[] = [];
  for (const [key, ribbon] of Object.entries(group.graph.ribbons)) {
    const to = inletOf(key);
    if (to.node === DOCK) continue;
    const from = source({ node: ribbon.from, outlet: ribbon.outlet });
    if (from) runs.push(...edits.connect(from, { node: fresh(to.node), inlet: to.inlet }).changes);
    else {
      // An open inlet of the group had a value of its own: the node inside takes it over.
      const value = instance.values[ribbon.outlet] ?? group.inlets[ribbon.outlet]?.value;
      const node = put.get(to.node);
      if (value !== undefined && node) put.set(to.node, { ...node, values: { ...node.values, [to.inlet]: value } });
    }
  }
  for (const [key, ribbon] of Object.entries(graph.ribbons)) {
    if (ribbon.from !== id) continue;
    const inner = group.graph.ribbons[inletKey(DOCK, ribbon.outlet)];
    const from = inner && source({ node: inner.from, outlet: inner.outlet });
    if (from) runs.push(...edits.connect(from, inletOf(key)).changes);
  }
  const stillUsed = graphsOf(material).some(([each, inner]) =>
    Object.entries(inner.nodes).some(([key, node]) => node.group === instance.group && !(each.group === edits.group && key === id)),
  );
  return {
    nodes: [...names.values()],
    edit: {
      label: 'Ungroup',
      changes: [
        ...edits.remove(material, [id]).changes,
        ...[...put].map(([each, node]) => edits.putNode(fresh(each), node)),
        ...runs,
        ...(stillUsed ? [] : [{ path: ['groups', instance.group] }]),
      ],
    },
  };
}

/** Whether a node of this group may stand in a graph: never inside of itself. */
export function mayContain(material: Pick<Material, 'groups'>, graph: GraphEdits, group: string): boolean {
  if (graph.group === undefined) return true;
  const stand: GraphNode = { kind: GROUP_KIND, rev: 1, group, x: 0, y: 0, values: {} };
  return !Object.hasOwn(groupsUnder(material, [stand]), graph.group);
}

export function putGroup(group: string, definition: NodeGroup): Edit {
  return { label: 'Add a group', changes: [{ path: ['groups', group], value: definition }] };
}

/** Whether what is inside is computed once for each light, and summed. */
export function runForEachLight(group: string, each: boolean): Edit {
  const path = ['groups', group, 'eachLight'];
  return each
    ? { label: 'Run a group for each light', changes: [{ path, value: true }] }
    : { label: 'Run a group once', changes: [{ path }] };
}

export function titleGroup(group: string, title: string): Edit {
  return { label: 'Name a group', changes: [{ path: ['groups', group, 'title'], value: title }] };
}

export function describeGroup(group: string, help: string): Edit {
  return { label: 'Describe a group', changes: [{ path: ['groups', group, 'help'], value: help }] };
}

type Side = 'inlets' | 'outlets';

export function addPort(
  { groups }: Pick<Material, 'groups'>,
  group: string,
  side: Side,
  name: string,
  type: RibbonType,
  label: string,
): Edit {
  const order = Math.max(-1, ...Object.values(groups[group]?.[side] ?? {}).map((port) => port.order)) + 1;
  const port: GroupPort = { label, type, order };
  return { label: 'Add to a group', changes: [{ path: ['groups', group, side, name], value: port }] };
}

export function setPort<K extends 'label' | 'type' | 'order' | 'value' | 'low' | 'high'>(
  group: string,
  side: Side,
  name: string,
  field: K,
  value: GroupPort[K],
): Edit {
  const path = ['groups', group, side, name, field];
  return { label: 'Change a group', changes: [value === undefined ? { path } : { path, value: value }] };
}

/** Takes an inlet or outlet off a group, with the ribbons at it inside and at all nodes that stand for the group. */
export function removePort(material: Material, group: string, side: Side, name: string): Edit {
  const graph = material.groups[group]?.graph ?? EMPTY_GRAPH;
  const inside = new GraphEdits(group);
  const own = Object.entries(graph.ribbons)
    .filter(([key, ribbon]) => (side === 'inlets' ? ribbon.from === ENTRY && ribbon.outlet === name : key === inletKey(DOCK, name)))
    .flatMap(([key]) => inside.disconnect(inletOf(key)).changes);
  const outside = graphsOf(material).flatMap(([edits, each]) =>
    Object.entries(each.ribbons)
      .filter(([key, ribbon]) => {
        const to = inletOf(key);
        const at = side === 'inlets' ? to.node : ribbon.from;
        return each.nodes[at]?.group === group && (side === 'inlets' ? to.inlet : ribbon.outlet) === name;
      })
      .flatMap(([key]) => edits.disconnect(inletOf(key)).changes),
  );
  return { label: 'Take off a group', changes: [...own, ...outside, { path: ['groups', group, side, name] }] };
}
