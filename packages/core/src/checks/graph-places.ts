import type { ResolvedInlet, ResolvedNode } from '../compile/resolve';
import { joinEdits, type Edit } from '../document/edit';
import { GraphEdits } from '../document/graph-edits';
import type { CheckInput } from './check';

/** Nodes that somebody put there, sources first: without the ports of groups. */
export function placedNodes({ resolved }: CheckInput): ResolvedNode[] {
  return [...resolved.nodes.values()].filter((node) => node.node !== undefined);
}

export function sourceOf({ resolved }: CheckInput, inlet: ResolvedInlet): ResolvedNode | undefined {
  return inlet.ribbon && resolved.nodes.get(inlet.ribbon.from);
}

/** The numbers of an open inlet: typed in, or its default; nothing where a ribbon runs in or the surface gives it. */
export function openNumbers(node: ResolvedNode, inlet: ResolvedInlet): readonly number[] | undefined {
  if (inlet.ribbon) return undefined;
  const typed = node.node?.values[inlet.spec.name];
  if (typed !== undefined) return typeof typed === 'number' ? [typed] : typed;
  return 'value' in inlet.spec.default ? inlet.spec.default.value : undefined;
}

/** Puts a node of a kind into a ribbon; nothing where the ribbon comes from outside of the group. */
export function insertBefore(input: CheckInput, target: ResolvedNode, inlet: ResolvedInlet, kind: string, into: string): Edit | undefined {
  const source = sourceOf(input, inlet);
  const found = input.catalogue.kinds.get(kind);
  if (!source?.node || !target.node || !inlet.ribbon || !found || source.home.group !== target.home.group) return undefined;
  const edits = new GraphEdits(target.home.group);
  const id = input.newId();
  const middle = (axis: 'x' | 'y'): number => Math.round(((source.node?.[axis] ?? 0) + (target.node?.[axis] ?? 0)) / 2);
  return joinEdits(
    `Insert ${found.title}`,
    edits.addNode(id, { kind, rev: found.rev, x: middle('x'), y: middle('y') + 40, values: {} }, found.title),
    edits.connect({ node: source.home.node, outlet: inlet.ribbon.outlet }, { node: id, inlet: into }),
    edits.connect({ node: id, outlet: 'result' }, { node: target.home.node, inlet: inlet.spec.name }),
  );
}

/** A place that stays the same: the node in its graph, not the path through which it is seen. */
export function placeOf({ home }: ResolvedNode, inlet?: string): string {
  return [home.group, home.node, inlet].filter((each) => each !== undefined).join('/');
}
