import type { GraphNode, GroupPort, NodeGroup, Material, RibbonType } from '@brelvin/contract';
import { featuredKind } from '../catalogue/features';
import { codeKind } from '../catalogue/code-kind';
import { CODE_KIND, GROUP_KIND, PARAMETER_KIND, type Catalogue, type InletSpec, type Meaning, type NodeKind } from '../catalogue/kind';

const MEANINGS: Readonly<Record<RibbonType, Meaning>> = {
  number: 'number',
  vec2: 'uv',
  vec3: 'vector',
  vec4: 'vector',
  colour: 'colour',
  light: 'light',
  field: 'field',
  stops: 'stops',
  image: 'image',
  cubeImage: 'cubeImage',
};

/** A group's inlet as every other node's: open, it is 0 unless the group says otherwise. */
export function portSpec(name: string, { label, type, value, low, high }: GroupPort): InletSpec {
  const numbers = value === undefined ? OPEN[type] : typeof value === 'number' ? [value] : value;
  return { name, label, meaning: MEANINGS[type], default: { value: numbers }, low, high, help: '', type };
}

const OPEN: Readonly<Record<RibbonType, readonly number[]>> = {
  number: [0],
  vec2: [0, 0],
  vec3: [0, 0, 0],
  vec4: [0, 0, 0, 0],
  colour: [0, 0, 0],
  light: [0],
  field: [0],
  stops: [0],
  image: [0],
  cubeImage: [0],
};

const made = new WeakMap<NodeGroup, NodeKind>();

/** A group as a kind of node: its ports in order. The same group gives the same kind. */
export function groupKind(catalogue: Catalogue, group: NodeGroup): NodeKind {
  const known = made.get(group);
  if (known) return known;
  const base = catalogue.kinds.get(GROUP_KIND);
  const inOrder = (ports: Readonly<Record<string, GroupPort>>): [string, GroupPort][] =>
    Object.entries(ports).sort(([a, one], [b, other]) => one.order - other.order || a.localeCompare(b));
  const kind: NodeKind = {
    id: GROUP_KIND,
    rev: 1,
    title: group.title,
    family: base?.family ?? '',
    help: group.help || (base?.help ?? ''),
    source: base?.source ?? '',
    words: [],
    inlets: inOrder(group.inlets).map(([name, port]) => portSpec(name, port)),
    outlets: inOrder(group.outlets).map(([name, port]) => ({
      name,
      label: port.label,
      meaning: MEANINGS[port.type],
      help: '',
      type: port.type,
    })),
    overloads: [],
  };
  made.set(group, kind);
  return kind;
}

/** The kind of a node in a material: of the catalogue, or made of its group. */
export function kindOfNode(catalogue: Catalogue, material: Pick<Material, 'groups'>, node: GraphNode): NodeKind | undefined {
  if (node.kind === CODE_KIND) {
    const made = codeKind(node.code);
    return ('kind' in made ? made.kind : made.ports) ?? catalogue.kinds.get(node.kind);
  }
  if (node.kind !== GROUP_KIND) {
    const kind = catalogue.kinds.get(node.kind);
    return kind && featuredKind(kind, node.features);
  }
  const group = material.groups[node.group ?? ''];
  return group && groupKind(catalogue, group);
}

/** What a node is called where it stands. */
export function titleOfNode(catalogue: Catalogue, material: Pick<Material, 'groups' | 'parameters'>, node: GraphNode): string {
  const parameter = node.kind === PARAMETER_KIND ? material.parameters[node.parameter ?? '']?.name : undefined;
  return node.name ?? parameter ?? kindOfNode(catalogue, material, node)?.title ?? node.kind;
}
