import type { Graph, Material, RibbonType } from '@brelvin/contract';
import type { Catalogue, NodeKind } from '../catalogue/kind';
import { DOCK, ENTRY, inletKey, type InletAddress, type OutletAddress } from '../document/graph';
import type { Edit } from '../document/edit';
import { GraphEdits } from '../document/graph-edits';
import { kindOfNode, titleOfNode } from './group-kind';
import type { ResolvedGraph, ResolvedInlet } from './resolve';

/** One graph of a material as it is worked on: with the types that the last resolving found. */
export class TypedGraph {
  readonly edits: GraphEdits;
  readonly graph: Graph;

  /**
   * @param group whose inside it is; the surface without
   * @param path of the group's node through which it was entered, with a slash; empty for the surface
   */
  constructor(
    readonly material: Material,
    readonly catalogue: Catalogue,
    readonly resolved: ResolvedGraph,
    readonly group?: string,
    private readonly path = '',
  ) {
    this.edits = new GraphEdits(group);
    this.graph = this.edits.graphOf(material);
  }

  kind(node: string): NodeKind | undefined {
    const found = this.graph.nodes[node];
    return found && kindOfNode(this.catalogue, this.material, found);
  }

  /** What a node is called where it stands. */
  title(node: string): string {
    const found = this.graph.nodes[node];
    return found ? titleOfNode(this.catalogue, this.material, found) : '';
  }

  /** What a node gives at an outlet; a group's own inlets, seen from inside, are outlets of `entry`. */
  outletType({ node, outlet }: OutletAddress): RibbonType | undefined {
    if (node === ENTRY) return this.material.groups[this.group ?? '']?.inlets[outlet]?.type;
    return this.find(node)?.outlets[outlet];
  }

  inletType({ node, inlet }: InletAddress): RibbonType | undefined {
    if (node === DOCK && this.group !== undefined) return this.material.groups[this.group]?.outlets[inlet]?.type;
    return this.inlets(node).find((each) => each.spec.name === inlet)?.type;
  }

  /** A node's inlets in order, with their types; those of the Stage's dock for `dock`. */
  inlets(node: string): readonly ResolvedInlet[] {
    if (node === DOCK) return this.group === undefined ? this.resolved.dock : [];
    return this.find(node)?.inlets ?? [];
  }

  /** What a ribbon's conversion shows. */
  conversionAt(to: InletAddress): string {
    if (to.node === DOCK && this.group !== undefined) {
      return this.resolved.nodes.get(`${this.path.slice(0, -1)}/out:${to.inlet}`)?.inlets[0]?.conversion ?? '';
    }
    return this.inlets(to.node).find((each) => each.spec.name === to.inlet)?.conversion ?? '';
  }

  sourceOf({ node, inlet }: InletAddress): OutletAddress | undefined {
    const ribbon = this.graph.ribbons[inletKey(node, inlet)];
    return ribbon && { node: ribbon.from, outlet: ribbon.outlet };
  }

  /** Runs a ribbon, and says from where to where. */
  connect(from: OutletAddress, to: InletAddress): Edit {
    return { ...this.edits.connect(from, to), label: `Connect ${this.endWords(from.node)} to ${this.inletWords(to)}` };
  }

  /** Takes the ribbon at an inlet away, and says which it was. */
  disconnect(to: InletAddress): Edit {
    const from = this.sourceOf(to);
    const source = from ? ` from ${this.endWords(from.node)}` : '';
    return { ...this.edits.disconnect(to), label: `Disconnect ${this.inletWords(to)}${source}` };
  }

  private inletWords({ node, inlet }: InletAddress): string {
    const group = this.group === undefined ? undefined : this.material.groups[this.group];
    const label =
      node === DOCK && group ? group.outlets[inlet]?.label : this.inlets(node).find((each) => each.spec.name === inlet)?.spec.label;
    return label === undefined ? this.endWords(node) : `${this.endWords(node)}, ${label}`;
  }

  private endWords(node: string): string {
    if (node === ENTRY) return 'an inlet of the group';
    if (node === DOCK) return this.group === undefined ? 'the dock' : 'an outlet of the group';
    return this.title(node);
  }

  /** The node under its path in the unfolded graph, as problems and rates name it. */
  pathOf(node: string): string {
    return this.path + node;
  }

  /** Whether a node's inlets and outlets are of the same types, with the same conversions, as in an earlier state. */
  typesAs(before: TypedGraph, node: string): boolean {
    return this.find(node) === before.find(node);
  }

  private find(
    node: string,
  ): { readonly inlets: readonly ResolvedInlet[]; readonly outlets: Readonly<Record<string, RibbonType>> } | undefined {
    return this.resolved.nodes.get(this.path + node) ?? this.resolved.instances.get(this.path + node);
  }
}
