import type { Graph, GraphNode, InletValue, Ribbon, GroupPort, NodeGroup, Material } from '@brelvin/contract';
import { GROUP_KIND } from '../catalogue/kind';
import { DOCK, ENTRY, inletKey, inletOf, type OutletAddress } from '../document/graph';

/** Where a node's values stand in the document: on the surface, or in a group. */
export interface NodeHome {
  readonly group?: string;
  readonly node: string;
}

/** A ribbon's way into a group or out of it: it takes the port's type there. */
export interface PortNode {
  readonly port: GroupPort;
  /** What stands there when nothing runs in. */
  readonly value?: InletValue;
  readonly home: NodeHome;
  readonly inlet: string;
}

/** A graph without groups: each stands unfolded, its nodes under paths `group/…/node`. */
export interface FlatGraph {
  readonly nodes: Readonly<Record<string, GraphNode>>;
  readonly ports: ReadonlyMap<string, PortNode>;
  readonly ribbons: Readonly<Record<string, Ribbon>>;
  readonly homes: ReadonlyMap<string, NodeHome>;
  /** Nodes of kind `group` by path, which themselves are not in `nodes`. */
  readonly instances: ReadonlyMap<string, { readonly node: GraphNode; readonly group: NodeGroup }>;
  readonly problems: readonly { readonly node: string; readonly inlet?: string; readonly message: string }[];
}

export const PORT_INLET = 'in';
const MOST_NODES = 50_000;

/** The path of a group's inlet or outlet in the flat graph. */
export function portPath(instance: string, side: 'in' | 'out', port: string): string {
  return `${instance}/${side}:${port}`;
}

/**
 * Unfolds all groups. Never throws: what cannot be unfolded is left out and said.
 *
 * @param before an earlier state: ribbons that run as they ran are the same objects
 */
export function flattenGraph({ surface, groups }: Pick<Material, 'surface' | 'groups'>, before?: FlatGraph): FlatGraph {
  return new Flattening(groups, before?.ribbons ?? {}).run(surface);
}

class Flattening {
  private readonly nodes: Record<string, GraphNode> = {};
  private readonly ports = new Map<string, PortNode>();
  private readonly ribbons: Record<string, Ribbon> = {};
  private readonly homes = new Map<string, NodeHome>();
  private readonly instances = new Map<string, { node: GraphNode; group: NodeGroup }>();
  private readonly problems: { node: string; inlet?: string; message: string }[] = [];
  private count = 0;

  constructor(
    private readonly groups: Readonly<Record<string, NodeGroup>>,
    private readonly before: Readonly<Record<string, Ribbon>>,
  ) {}

  run(surface: Graph): FlatGraph {
    const unfolded = Object.keys(surface.nodes).some((id) => surface.nodes[id]?.kind === GROUP_KIND);
    if (unfolded) this.graph(surface, '', undefined, []);
    const { ports, homes, instances, problems } = this;
    const [nodes, ribbons] = unfolded ? [this.nodes, this.ribbons] : [surface.nodes, surface.ribbons];
    return { nodes, ribbons, ports, homes, instances, problems };
  }

  /** Ribbons first: what is inside a group asks whether anything runs into it. */
  private graph(graph: Graph, path: string, home: string | undefined, within: readonly string[]): void {
    for (const [id, node] of Object.entries(graph.nodes)) {
      if (node.kind === GROUP_KIND) this.openInstance(path + id, node, { group: home, node: id }, within);
      else {
        this.nodes[path + id] = node;
        if (home !== undefined) this.homes.set(path + id, { group: home, node: id });
        this.count++;
      }
    }
    for (const [key, ribbon] of Object.entries(graph.ribbons)) this.ribbon(graph, path, key, ribbon);
    for (const [id, node] of Object.entries(graph.nodes)) {
      const found = node.kind === GROUP_KIND ? this.instances.get(path + id) : undefined;
      if (found) this.graph(found.group.graph, `${path}${id}/`, node.group, [...within, node.group ?? '']);
    }
  }

  private openInstance(at: string, node: GraphNode, home: NodeHome, within: readonly string[]): void {
    const id = node.group ?? '';
    const group = this.groups[id];
    if (!group) {
      this.problems.push({ node: at, message: 'The group that this node stands for is gone. Delete the node, or undo.' });
      return;
    }
    if (within.includes(id)) {
      this.problems.push({ node: at, message: `“${group.title}” contains itself. Delete this node, or undo.` });
      return;
    }
    if (this.count > MOST_NODES) {
      this.problems.push({ node: at, message: `Unfolded, these groups have more than ${MOST_NODES} nodes. Use fewer of them.` });
      return;
    }
    this.instances.set(at, { node, group });
    for (const [inlet, port] of Object.entries(group.inlets)) {
      this.ports.set(portPath(at, 'in', inlet), { port, value: node.values[inlet] ?? port.value, home, inlet });
    }
    for (const [outlet, port] of Object.entries(group.outlets)) {
      this.ports.set(portPath(at, 'out', outlet), { port, home, inlet: outlet });
    }
  }

  private ribbon(graph: Graph, path: string, key: string, { from, outlet }: Ribbon): void {
    const { node, inlet } = inletOf(key);
    const target =
      node === DOCK && path
        ? { node: portPath(path.slice(0, -1), 'out', inlet), inlet: PORT_INLET }
        : graph.nodes[node]?.kind === GROUP_KIND
          ? { node: portPath(path + node, 'in', inlet), inlet: PORT_INLET }
          : { node: node === DOCK ? DOCK : path + node, inlet };
    const source: OutletAddress =
      from === ENTRY && path
        ? { node: portPath(path.slice(0, -1), 'in', outlet), outlet: 'result' }
        : graph.nodes[from]?.kind === GROUP_KIND
          ? { node: portPath(path + from, 'out', outlet), outlet: 'result' }
          : { node: path + from, outlet };
    // An open inlet of a group without a value of its own leaves what is inside open too.
    if (from === ENTRY && path && !this.filled(source.node)) return;
    const at = inletKey(target.node, target.inlet);
    const old = this.before[at];
    this.ribbons[at] = old?.from === source.node && old.outlet === source.outlet ? old : { from: source.node, outlet: source.outlet };
  }

  private filled(port: string): boolean {
    return this.ports.get(port)?.value !== undefined || Object.hasOwn(this.ribbons, inletKey(port, PORT_INLET));
  }
}
