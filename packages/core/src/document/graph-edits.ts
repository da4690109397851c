import type { Area, Graph, GraphNode, InletValue, Note, Material, Change } from '@brelvin/contract';
import type { Edit } from './edit';
import { DOCK, EMPTY_GRAPH, inletKey, inletOf, type InletAddress, type OutletAddress } from './graph';

/** Where a node, area or note lies, by id. */
export type Places = ReadonlyMap<string, { readonly x: number; readonly y: number }>;

/** Edits of one graph of a material: its surface, or the inside of one of its groups. */
export class GraphEdits {
  private readonly base: readonly string[];

  constructor(readonly group?: string) {
    this.base = group === undefined ? ['surface'] : ['groups', group, 'graph'];
  }

  /** The graph that is edited; empty when its group is gone. */
  graphOf(material: Pick<Material, 'surface' | 'groups'>): Graph {
    return this.group === undefined ? material.surface : (material.groups[this.group]?.graph ?? EMPTY_GRAPH);
  }

  addNode(id: string, node: GraphNode, title: string): Edit {
    return { label: `Add ${title}`, changes: [{ path: this.node(id), value: node }] };
  }

  /** Switches a feature of a node on or off; ribbons into inlets that go with it go too. Values stay for when it is on again. */
  switchFeature(
    material: Material,
    id: string,
    inletsWith: (on: readonly string[]) => readonly string[],
    name: string,
    label: string,
  ): Edit {
    const graph = this.graphOf(material);
    const was = graph.nodes[id]?.features ?? [];
    const on = was.includes(name) ? was.filter((each) => each !== name) : [...was, name];
    const left = new Set(inletsWith(on));
    const ribbons = Object.keys(graph.ribbons).filter((key) => inletOf(key).node === id && !left.has(inletOf(key).inlet));
    return {
      label: `${was.includes(name) ? 'Without' : 'With'} ${label}`,
      changes: [this.putFeatures(id, on), ...ribbons.map((key): Change => ({ path: this.ribbon(inletOf(key)) }))],
    };
  }

  /** Says which features of a node are on. */
  putFeatures(id: string, on: readonly string[]): Change {
    const path = [...this.node(id), 'features'];
    return on.length > 0 ? { path, value: [...on] } : { path };
  }

  /** Takes nodes, areas and notes away with the ribbons at them, and parameters that nothing else reads. */
  remove(material: Material, ids: Iterable<string>): Edit {
    const graph = this.graphOf(material);
    const wanted = [...ids];
    const nodes = new Set(wanted.filter((id) => Object.hasOwn(graph.nodes, id)));
    const ribbons = Object.entries(graph.ribbons).filter(([key, ribbon]) => nodes.has(inletOf(key).node) || nodes.has(ribbon.from));
    const read = parametersRead(material, this.group, nodes);
    const parameters = new Set([...nodes].map((id) => graph.nodes[id]?.parameter).filter((each) => each !== undefined));
    const gone = (what: 'areas' | 'notes'): Change[] =>
      wanted.filter((id) => Object.hasOwn(graph[what], id)).map((id) => ({ path: [...this.base, what, id] }));
    const changes = [
      ...ribbons.map(([key]): Change => ({ path: this.ribbon(inletOf(key)) })),
      ...[...nodes].map((id): Change => ({ path: this.node(id) })),
      ...gone('areas'),
      ...gone('notes'),
    ];
    const orphans = [...parameters].filter((id) => !read.has(id) && Object.hasOwn(material.parameters, id));
    const count = changes.length - ribbons.length;
    return {
      label: count === 1 ? `Delete a ${nodes.size === 1 ? 'node' : 'remark'}` : `Delete ${count} nodes`,
      changes: [...changes, ...orphans.map((id): Change => ({ path: ['parameters', id] }))],
    };
  }

  /** Runs a ribbon; one that ended in the same inlet makes room. */
  connect(from: OutletAddress, to: InletAddress): Edit {
    return {
      label: to.node === DOCK ? 'Connect to the dock' : 'Connect',
      changes: [{ path: this.ribbon(to), value: { from: from.node, outlet: from.outlet } }],
    };
  }

  disconnect(to: InletAddress): Edit {
    return { label: 'Take a ribbon away', changes: [{ path: this.ribbon(to) }] };
  }

  setBends(to: InletAddress, bends: readonly (readonly number[])[]): Edit {
    const path = [...this.ribbon(to), 'bends'];
    const rounded = bends.map((point) => point.map(Math.round));
    return { label: 'Bend a ribbon', changes: [rounded.length > 0 ? { path, value: rounded } : { path }] };
  }

  /** Puts nodes, areas and notes at places. */
  place(material: Material, places: Places, label = 'Move'): Edit {
    const graph = this.graphOf(material);
    const changes = [...places].flatMap(([id, { x, y }]): Change[] => {
      const what = (['nodes', 'areas', 'notes'] as const).find((each) => Object.hasOwn(graph[each], id));
      if (!what) return [];
      return [
        { path: [...this.base, what, id, 'x'], value: Math.round(x) },
        { path: [...this.base, what, id, 'y'], value: Math.round(y) },
      ];
    });
    return { label, changes };
  }

  /** Moves nodes, areas and notes; bends between two nodes that move go along. */
  move(material: Material, ids: Iterable<string>, dx: number, dy: number): Edit {
    const graph = this.graphOf(material);
    const moving = new Set(ids);
    const places = new Map(
      [...moving].flatMap((id) => {
        const at = graph.nodes[id] ?? graph.areas[id] ?? graph.notes[id];
        return at ? [[id, { x: at.x + dx, y: at.y + dy }] as const] : [];
      }),
    );
    const bends = Object.entries(graph.ribbons).flatMap(([key, ribbon]): Change[] => {
      if (!ribbon.bends || !moving.has(ribbon.from) || !moving.has(inletOf(key).node)) return [];
      const moved = ribbon.bends.map(([x = 0, y = 0]) => [Math.round(x + dx), Math.round(y + dy)]);
      return [{ path: [...this.ribbon(inletOf(key)), 'bends'], value: moved }];
    });
    const { label, changes } = this.place(material, places);
    return { label, changes: [...changes, ...bends] };
  }

  setInletValue(at: InletAddress, value: InletValue, label: string): Edit {
    return { label: `Change ${label}`, changes: [{ path: this.node(at.node, 'values', at.inlet), value }] };
  }

  resetInletValue(at: InletAddress, label: string): Edit {
    return { label: `Reset ${label}`, changes: [{ path: this.node(at.node, 'values', at.inlet) }] };
  }

  /**
   * What a map is multiplied by before the inlet takes it. The first one asks for another program, so it is written as a
   * change of all of them; a later one is a number.
   */
  setFactor(material: Material, { node, inlet }: InletAddress, value: InletValue, label: string): Edit {
    const factors = this.graphOf(material).nodes[node]?.factors;
    const change =
      factors?.[inlet] === undefined
        ? { path: this.node(node, 'factors'), value: { ...factors, [inlet]: value } }
        : { path: this.node(node, 'factors', inlet), value };
    return { label: `Change ${label}, factor`, changes: [change] };
  }

  resetFactor(at: InletAddress, label: string): Edit {
    return { label: `Reset ${label}, factor`, changes: [{ path: this.node(at.node, 'factors', at.inlet) }] };
  }

  /** Gives a node a name of its own; an empty one gives the kind's title back. */
  nameNode(id: string, name: string): Edit {
    const path = this.node(id, 'name');
    return { label: 'Name a node', changes: [name ? { path, value: name } : { path }] };
  }

  /** Shows small pictures on nodes, or no more. */
  setPreviews(ids: Iterable<string>, shown: boolean): Edit {
    const changes = [...ids].map((id): Change =>
      shown ? { path: this.node(id, 'preview'), value: true } : { path: this.node(id, 'preview') },
    );
    return { label: shown ? 'Show previews' : 'Hide previews', changes };
  }

  setCode(id: string, code: string): Edit {
    return { label: 'Write code', changes: [{ path: this.node(id, 'code'), value: code }] };
  }

  setImage(id: string, image: string): Edit {
    return { label: 'Choose an image', changes: [{ path: this.node(id, 'image'), value: image }] };
  }

  putNode(id: string, node: GraphNode): Change {
    return { path: this.node(id), value: node };
  }

  putArea(id: string, area: Area, label = 'Add an area'): Edit {
    return { label, changes: [{ path: [...this.base, 'areas', id], value: area }] };
  }

  putNote(id: string, note: Note, label = 'Add a note'): Edit {
    return { label, changes: [{ path: [...this.base, 'notes', id], value: note }] };
  }

  private node(id: string, ...rest: readonly string[]): string[] {
    return [...this.base, 'nodes', id, ...rest];
  }

  private ribbon(to: InletAddress): string[] {
    return [...this.base, 'ribbons', inletKey(to.node, to.inlet)];
  }
}

/** All graphs of a material, each with the edits that change it. */
export function graphsOf(material: Pick<Material, 'surface' | 'groups'>): readonly (readonly [GraphEdits, Graph])[] {
  const inside = Object.entries(material.groups).map(([id, group]) => [new GraphEdits(id), group.graph] as const);
  return [[new GraphEdits(), material.surface] as const, ...inside];
}

/** Parameters that nodes read, but for nodes of one graph that are about to go. */
function parametersRead(material: Material, group: string | undefined, going: ReadonlySet<string>): ReadonlySet<string | undefined> {
  return new Set(
    graphsOf(material).flatMap(([edits, graph]) =>
      Object.entries(graph.nodes)
        .filter(([id]) => edits.group !== group || !going.has(id))
        .map(([, node]) => node.parameter),
    ),
  );
}
