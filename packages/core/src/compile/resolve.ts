import type { GraphNode, MaterialParameter, RibbonType } from '@brelvin/contract';
import { featuredKind } from '../catalogue/features';
import { codeKind } from '../catalogue/code-kind';
import {
  CODE_KIND,
  PARAMETER_KIND,
  POINTER_KIND,
  THIS_LIGHT_KIND,
  type Catalogue,
  type InletSpec,
  type Meaning,
  type NodeKind,
} from '../catalogue/kind';
import { DOCK } from '../document/graph';
import type { MaterialSource } from '../document/material';
import { incomingRibbons, type IncomingRibbon, type IncomingRibbons } from '../document/incoming-ribbons';
import type { IrFunction } from '../ir/ir';
import { nearestName } from '../language';
import { dockInlets } from './dock';
import { flattenGraph, PORT_INLET, type FlatGraph, type NodeHome, type PortNode } from './flatten';
import { orderAgain, orderGraph, rewiredNodes } from './graph-order';
import { groupKind, portSpec } from './group-kind';
import { LightLoops } from './light-loops';
import { conversion, misfitMessage, ribbonType } from './ribbon-type';
import { isTakenApart } from '../catalogue/whole-structs';

/** What a single number cannot stand for. */
const DIRECTIONAL: ReadonlySet<Meaning> = new Set<Meaning>(['normal', 'directionToLight', 'directionToEye']);

/** Something about the graph that keeps it from compiling, said at a node (by path) or an inlet of it. */
export interface GraphProblem {
  readonly node: string;
  readonly inlet?: string;
  readonly message: string;
}

export interface ResolvedInlet {
  readonly spec: InletSpec;
  readonly type: RibbonType;
  readonly ribbon?: IncomingRibbon;
  /** What the ribbon's conversion shows; empty when nothing changes. */
  readonly conversion: string;
}

/** A node with its overload chosen and all types known. */
export interface ResolvedNode {
  /** Path: `group/…/node`. */
  readonly id: string;
  readonly node?: GraphNode;
  readonly home: NodeHome;
  readonly kind: NodeKind;
  readonly overload?: IrFunction;
  readonly parameter?: MaterialParameter;
  /** A ribbon's way into a group or out of it. */
  readonly port?: PortNode;
  readonly inlets: readonly ResolvedInlet[];
  readonly outlets: Readonly<Record<string, RibbonType>>;
  /** Whether it can be taken over as long as neither it nor its sources change: nothing else has a say, and nothing is wrong. */
  readonly settled?: boolean;
}

export interface ResolvedGraph {
  /** By path, in an order in which sources come first. */
  readonly nodes: ReadonlyMap<string, ResolvedNode>;
  /** Nodes of kind `group`, by path: as they look from outside. */
  readonly instances: ReadonlyMap<string, ResolvedNode>;
  readonly dock: readonly ResolvedInlet[];
  readonly incoming: IncomingRibbons;
  readonly problems: readonly GraphProblem[];
  /** What it was made from, for resolving a later state of the same graph. */
  readonly flat: FlatGraph;
  /** All nodes, sources first; nothing where they run in a circle. */
  readonly order?: readonly string[];
}

/**
 * Chooses an overload for every node and types every ribbon.
 *
 * @param before an earlier result: nodes that stand as they stood then are taken over
 */
export function resolveGraph(material: MaterialSource, catalogue: Catalogue, before?: ResolvedGraph): ResolvedGraph {
  return new GraphResolver(flattenGraph(material, before?.flat), material, catalogue, before).resolve();
}

const PORT_KIND: Omit<NodeKind, 'inlets' | 'outlets'> = {
  id: 'port',
  rev: 1,
  title: 'Port',
  family: '',
  help: '',
  source: '',
  words: [],
  overloads: [],
};

class GraphResolver {
  private readonly incoming: IncomingRibbons;
  /** Nodes that give other types than in the earlier result, or are gone. */
  private readonly retyped = new Set<string>();
  private readonly rewired: ReadonlySet<string>;
  /** Whether nodes stand in the order of the earlier result. */
  private kept = false;
  private nodes = new Map<string, ResolvedNode>();
  private readonly instances = new Map<string, ResolvedNode>();
  private readonly problems: GraphProblem[] = [];
  private readonly loops: LightLoops;

  constructor(
    private readonly flat: FlatGraph,
    private readonly material: Pick<MaterialSource, 'parameters' | 'field'>,
    private readonly catalogue: Catalogue,
    private readonly before?: ResolvedGraph,
  ) {
    this.incoming = incomingRibbons(flat, before?.flat);
    this.rewired = before ? rewiredNodes(this.incoming, before.incoming) : new Set();
    this.loops = new LightLoops(flat);
    this.problems.push(...flat.problems);
  }

  resolve(): ResolvedGraph {
    const { flat, catalogue, before, incoming } = this;
    const all = flat.ports.size > 0 ? { ...flat.nodes, ...Object.fromEntries(flat.ports) } : flat.nodes;
    const known = before?.order && orderAgain({ nodes: all }, incoming, { order: before.order, nodes: this.known(before) }, this.rewired);
    const { order, cycle } = known ?? orderGraph({ nodes: all }, incoming);
    if (cycle) {
      const path = [...cycle, cycle[0] ?? ''].map((id) => this.titleOf(id)).join(' → ');
      this.say(cycle[0] ?? '', undefined, `These nodes run in a circle: ${path}. Take one of the ribbons away.`);
    }
    // Where nothing changes its place, only what changes is looked at and written.
    this.kept = known?.kept ?? false;
    if (before && known?.kept) {
      this.nodes = new Map(before.nodes);
      for (const id of known.gone) {
        this.nodes.delete(id);
        this.retyped.add(id);
      }
    }
    let moved = false;
    for (const id of order) {
      const node = flat.nodes[id];
      const was = before?.nodes.get(id);
      const port = flat.ports.size > 0 ? flat.ports.get(id) : undefined;
      const resolved = port ? this.port(id, port) : node && (this.unchanged(id, node, was) ?? this.node(id, node));
      if (before && !sameOutlets(resolved?.outlets, was?.outlets)) this.retyped.add(id);
      if (!this.kept) {
        if (resolved) this.nodes.set(id, resolved);
      } else if (resolved !== was) {
        moved ||= !was && !known?.added.has(id);
        if (resolved) this.nodes.set(id, resolved);
        else this.nodes.delete(id);
      }
    }
    // A node that had a problem stands at its place again.
    if (moved) this.nodes = new Map(order.flatMap((id) => (this.nodes.has(id) ? [[id, this.nodes.get(id) as ResolvedNode]] : [])));
    for (const id of this.incoming.keys()) {
      if (id !== DOCK && !Object.hasOwn(all, id)) this.say(id, undefined, 'A ribbon runs into a node that is not there.');
    }
    for (const [id, { node, group }] of flat.instances) this.instances.set(id, this.instance(id, node, groupKind(catalogue, group)));
    const dock = this.inlets(DOCK, dockInlets(this.material), ({ type }) => type);
    const { nodes, instances, problems } = this;
    return { nodes, instances, dock, incoming, problems, flat, order: cycle ? undefined : order };
  }

  /** All nodes of an earlier result, also those with problems. */
  private known({ flat }: ResolvedGraph): { has(id: string): boolean } {
    return { has: (id) => Object.hasOwn(flat.nodes, id) || flat.ports.has(id) };
  }

  private say(node: string, inlet: string | undefined, message: string): void {
    this.problems.push({ node, inlet, message });
  }

  private titleOf(id: string): string {
    const node = this.flat.nodes[id];
    return node?.name ?? (node && this.catalogue.kinds.get(node.kind)?.title) ?? this.flat.ports.get(id)?.port.label ?? id;
  }

  private homeOf(id: string): NodeHome {
    return this.flat.homes.get(id) ?? { node: id };
  }

  private node(id: string, node: GraphNode): ResolvedNode | undefined {
    const kind = this.catalogue.kinds.get(node.kind);
    if (!kind) {
      const near = nearestName(node.kind, this.catalogue.kinds.keys());
      this.say(id, undefined, `There is no kind of node called "${node.kind}".${near ? ` The nearest is "${near}".` : ''}`);
      return undefined;
    }
    if (node.rev > kind.rev) {
      this.say(id, undefined, `"${kind.title}" is wanted in revision ${node.rev}; this Brelvin knows it up to revision ${kind.rev}.`);
      return undefined;
    }
    if (kind.id === PARAMETER_KIND) return this.parameterNode(id, node, kind);
    if (kind.id === POINTER_KIND) return { id, node, home: this.homeOf(id), kind, inlets: [], outlets: { result: 'number' } };
    if (kind.id === THIS_LIGHT_KIND && this.loops.around(id) === undefined)
      this.say(
        id,
        undefined,
        '“This light” has a meaning only in a group that runs for each light. Take “One light” here, or move it inside.',
      );
    const known = kind.id === CODE_KIND ? this.codeKind(id, node) : kind;
    if (!known) return undefined;
    return this.functionNode(id, node, featuredKind(known, node.features));
  }

  /** The function that is typed into a node. */
  private codeKind(id: string, node: GraphNode): NodeKind | undefined {
    const made = codeKind(node.code);
    if ('kind' in made) return made.kind;
    const { line, column, message, mends = [] } = made.problem;
    const mend = mends.map(({ label }) => ` To mend: ${label}.`).join('');
    this.say(id, undefined, `Line ${line}, column ${column}: ${message}${mend}`);
    return undefined;
  }

  private functionNode(id: string, node: GraphNode, kind: NodeKind): ResolvedNode {
    const overload = this.chooseOverload(id, kind);
    const types = new Map(overload.parameters.map((parameter) => [parameter.name, parameter.type]));
    const inlets = this.inlets(id, kind.inlets, (spec) => ribbonType(types.get(spec.name) ?? overload.result, spec.meaning));
    // Where a node stands says whether there is a light; an inlet without its source has something to say again.
    const settled = kind.id !== THIS_LIGHT_KIND && inlets.filter(({ ribbon }) => ribbon).length === (this.incoming.get(id)?.length ?? 0);
    return { id, node, home: this.homeOf(id), kind, overload, inlets, outlets: this.outletTypes(kind, overload, inlets), settled };
  }

  /** What the last result says of this node, if everything it was made from is as it was. */
  private unchanged(id: string, node: GraphNode, known: ResolvedNode | undefined): ResolvedNode | undefined {
    const was = known?.node;
    if (!known?.settled || !was || this.rewired.has(id)) return undefined;
    // Another group may have the same nodes at the same path.
    if (this.flat.homes.size > 0 && known.home.group !== this.homeOf(id).group) return undefined;
    if (was !== node && REMADE_BY.some((field) => was[field] !== node[field])) return undefined;
    const fresh = ({ from }: IncomingRibbon): boolean => this.retyped.has(from) || !this.nodes.has(from);
    if ((this.retyped.size > 0 || !this.kept) && this.incoming.get(id)?.some(fresh)) return undefined;
    return was === node ? known : { ...known, node };
  }

  private parameterNode(id: string, node: GraphNode, kind: NodeKind): ResolvedNode | undefined {
    const parameter = node.parameter === undefined ? undefined : this.material.parameters[node.parameter];
    if (!parameter) {
      this.say(id, undefined, 'The parameter that this node reads is gone. Delete the node, or undo.');
      return undefined;
    }
    const { type } = parameter;
    const outlets: Record<string, RibbonType> = { result: type === 'colour' || type === 'stops' ? type : 'number' };
    return { id, node, home: this.homeOf(id), kind, parameter, inlets: [], outlets };
  }

  private port(id: string, port: PortNode): ResolvedNode {
    const { type } = port.port;
    if (this.loops.endedBy({ id, port }) !== undefined && (type === 'stops' || type === 'image' || type === 'cubeImage'))
      this.say(id, PORT_INLET, `“${port.port.label}” cannot be summed over the lights. Make it a number, vector, colour or light.`);
    const kind: NodeKind = { ...PORT_KIND, inlets: [portSpec(PORT_INLET, port.port)], outlets: [] };
    return { id, home: port.home, kind, port, inlets: this.inlets(id, kind.inlets, () => type), outlets: { result: type } };
  }

  private instance(id: string, node: GraphNode, kind: NodeKind): ResolvedNode {
    const inlets = kind.inlets.map((spec): ResolvedInlet => {
      const inner = this.nodes.get(`${id}/in:${spec.name}`)?.inlets[0];
      return { spec, type: inner?.type ?? 'number', ribbon: inner?.ribbon, conversion: inner?.conversion ?? '' };
    });
    const outlets = kind.outlets.map(({ name }): [string, RibbonType] => [
      name,
      this.nodes.get(`${id}/out:${name}`)?.outlets['result'] ?? 'number',
    ]);
    return { id, node, home: this.homeOf(id), kind, inlets, outlets: Object.fromEntries(outlets) };
  }

  private chooseOverload(id: string, kind: NodeKind): IrFunction {
    const connected = new Map((this.incoming.get(id) ?? []).map((ribbon) => [ribbon.inlet, this.sourceType(ribbon)]));
    let best = kind.overloads[0];
    let bestCost = Infinity;
    for (const overload of kind.overloads) {
      let cost = 0;
      overload.parameters.forEach((parameter, index) => {
        const spec = kind.inlets[index];
        if (!spec) return;
        const wanted = ribbonType(parameter.type, spec.meaning);
        const given = connected.get(spec.name);
        // An open inlet adapts to what is connected elsewhere; among equals the plainer type wins.
        if (given === undefined) cost += OPEN_COST[wanted];
        else cost += conversion(given, wanted)?.cost ?? 1000;
      });
      if (cost < bestCost) {
        best = overload;
        bestCost = cost;
      }
    }
    if (!best) throw new RangeError(`kind ${kind.id} has no function`);
    return best;
  }

  private sourceType(ribbon: IncomingRibbon): RibbonType | undefined {
    return this.nodes.get(ribbon.from)?.outlets[ribbon.outlet];
  }

  private inlets<Spec extends InletSpec>(id: string, specs: readonly Spec[], typeOf: (spec: Spec) => RibbonType): ResolvedInlet[] {
    const ribbons = new Map((this.incoming.get(id) ?? []).map((ribbon) => [ribbon.inlet, ribbon]));
    const known = new Set(specs.map((spec) => spec.name));
    for (const inlet of ribbons.keys()) {
      if (!known.has(inlet))
        this.say(id, inlet, `A ribbon runs into "${inlet}", which ${id === DOCK ? 'the dock' : 'this node'} does not have.`);
    }
    return specs.map((spec): ResolvedInlet => {
      const type = typeOf(spec);
      const ribbon = ribbons.get(spec.name);
      if (!ribbon) return { spec, type, conversion: '' };
      const given = this.sourceType(ribbon);
      if (given === undefined) {
        this.explainMissingSource(id, spec.name, ribbon);
        return { spec, type, conversion: '' };
      }
      const found = conversion(given, type);
      if (given === 'number' && DIRECTIONAL.has(spec.meaning)) {
        this.say(id, spec.name, `A number has no direction: “${spec.label}” wants a vector. Put Normal from height, or Combine, between.`);
        return { spec, type, conversion: '' };
      }
      if (found) return { spec, type, ribbon, conversion: found.label };
      this.say(id, spec.name, misfitMessage(given, type));
      return { spec, type, conversion: '' };
    });
  }

  private explainMissingSource(id: string, inlet: string, ribbon: IncomingRibbon): void {
    const there = Object.hasOwn(this.flat.nodes, ribbon.from) || this.flat.ports.has(ribbon.from);
    if (this.flat.problems.some((problem) => ribbon.from.startsWith(`${problem.node}/`))) return;
    if (!there) this.say(id, inlet, 'This ribbon comes from a node that is not there.');
    else if (this.nodes.has(ribbon.from))
      this.say(id, inlet, `This ribbon comes from the outlet "${ribbon.outlet}", which its node does not have.`);
    // Otherwise the source has a problem of its own, which is already said.
  }

  /** A vector that is computed from colours is a colour. */
  private outletTypes(kind: NodeKind, overload: IrFunction, inlets: readonly ResolvedInlet[]): Record<string, RibbonType> {
    const { result } = overload;
    const generic = kind.overloads.length > 1;
    const fromColour = generic && inlets.some((inlet) => inlet.ribbon && this.sourceType(inlet.ribbon) === 'colour');
    return Object.fromEntries(
      kind.outlets.map((outlet) => {
        const field = isTakenApart(result) ? result.fields.find((each) => each.name === outlet.name)?.type : result;
        const type = ribbonType(field ?? result, outlet.meaning);
        return [outlet.name, type === 'vec3' && fromColour ? 'colour' : type];
      }),
    );
  }
}

/** What of a node decides what it is, besides what runs into it. */
const REMADE_BY = ['kind', 'rev', 'image', 'code', 'features'] as const;

const OPEN_COST: Readonly<Record<RibbonType, number>> = {
  number: 0,
  vec2: 0.1,
  vec3: 0.1,
  colour: 0.1,
  vec4: 0.1,
  light: 0.3,
  field: 0.2,
  stops: 0,
  image: 0,
  cubeImage: 0,
};

function sameOutlets(a: ResolvedNode['outlets'] | undefined, b: ResolvedNode['outlets'] | undefined): boolean {
  if (a === b) return true;
  if (!a || !b) return false;
  const names = Object.keys(a);
  return names.length === Object.keys(b).length && names.every((name) => a[name] === b[name]);
}
