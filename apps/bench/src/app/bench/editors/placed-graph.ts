import type { GraphNode, GroupPort, Ribbon, RibbonType } from '@brelvin/contract';
import { DOCK, ENTRY, inletOf, type NodeKind, type TypedGraph } from '@brelvin/core';
import { dockY } from './dock-layout';
import { cardBox, inletPoint, outletPoint, type Point } from './card-layout';

export interface Rectangle {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

export interface PlacedCard {
  readonly id: string;
  readonly node: GraphNode;
  readonly kind?: NodeKind;
  readonly box: Rectangle;
}

/** An end of a ribbon: at a card, in the graph; or at an edge of the surface, so many pixels down. */
export type RibbonEnd = { readonly at: Point } | { readonly edge: 'left' | 'right'; readonly y: number };

export interface PlacedRibbon {
  readonly key: string;
  readonly ribbon: Ribbon;
  readonly from: RibbonEnd;
  /** The node or dock it runs into. */
  readonly target: string;
  readonly to: RibbonEnd;
  readonly type: RibbonType;
  /** What its conversion shows. */
  readonly conversion: string;
}

/** Where everything of a graph lies, whatever part of it is seen. */
export interface PlacedGraph {
  readonly of: TypedGraph;
  readonly cards: ReadonlyMap<string, PlacedCard>;
  readonly ribbons: ReadonlyMap<string, PlacedRibbon>;
}

/** Ports of a group in order. */
export function portsInOrder(ports: Readonly<Record<string, GroupPort>>): [string, GroupPort][] {
  return Object.entries(ports).sort(([a, one], [b, other]) => one.order - other.order || a.localeCompare(b));
}

/** Names of the places at the right edge, from the top. */
export function dockNames({ group, material, resolved }: TypedGraph): string[] {
  if (group === undefined) return resolved.dock.map(({ spec }) => spec.name);
  return portsInOrder(material.groups[group]?.outlets ?? {}).map(([name]) => name);
}

/** Names of the places at the left edge, inside of a group. */
export function entryNames({ group, material }: TypedGraph): string[] {
  return group === undefined ? [] : portsInOrder(material.groups[group]?.inlets ?? {}).map(([name]) => name);
}

/** Where an inlet or outlet is; nothing when its node is gone or unknown. */
export function portEnd(typed: TypedGraph, node: string, side: 'inlet' | 'outlet', name: string): RibbonEnd | undefined {
  const edge = (names: readonly string[]): number => dockY(Math.max(0, names.indexOf(name)));
  if (node === DOCK) return { edge: 'right', y: edge(dockNames(typed)) };
  if (node === ENTRY) return { edge: 'left', y: edge(entryNames(typed)) };
  const found = typed.graph.nodes[node];
  const kind = typed.kind(node);
  if (!found || !kind) return undefined;
  return { at: side === 'inlet' ? inletPoint(found, kind, name) : outletPoint(found, kind, name, typed.title(node)) };
}

/**
 * Places a graph; what lies as it lay is taken over, so that an edit of a few nodes costs little in a graph of thousands.
 */
export function placeGraph(typed: TypedGraph, before?: PlacedGraph): PlacedGraph {
  const cards = new Map<string, PlacedCard>();
  const fresh = new Set<string>();
  const sameKinds = before !== undefined && lookUpAlike(typed, before.of);
  const sameTypes = before?.of.resolved === typed.resolved;
  for (const id of Object.keys(typed.graph.nodes)) {
    const node = typed.graph.nodes[id];
    if (!node) continue;
    const old = before?.cards.get(id);
    if (old && old.node === node && (sameKinds || old.kind === typed.kind(id))) {
      cards.set(id, old);
      if (before && !sameTypes && !typed.typesAs(before.of, id)) fresh.add(id);
      continue;
    }
    const box = cardBox(typed, id);
    if (box) cards.set(id, { id, node, kind: typed.kind(id), box });
    fresh.add(id);
  }
  const ribbons = new Map<string, PlacedRibbon>();
  const stays = (id: string): boolean => cards.has(id) && !fresh.has(id);
  for (const key of Object.keys(typed.graph.ribbons)) {
    const ribbon = typed.graph.ribbons[key];
    if (!ribbon) continue;
    const old = before?.ribbons.get(key);
    const placed = old?.ribbon === ribbon && stays(old.target) && stays(ribbon.from) ? old : placeRibbon(typed, key, ribbon);
    if (placed) ribbons.set(key, placed);
  }
  return { of: typed, cards, ribbons };
}

/** Whether a node that did not change is of the same kind in both. */
function lookUpAlike(a: TypedGraph, b: TypedGraph): boolean {
  const [one, other] = [a.material, b.material];
  return a.catalogue === b.catalogue && a.group === b.group && one.groups === other.groups && one.parameters === other.parameters;
}

function placeRibbon(typed: TypedGraph, key: string, ribbon: Ribbon): PlacedRibbon | undefined {
  const { node, inlet } = inletOf(key);
  const from = portEnd(typed, ribbon.from, 'outlet', ribbon.outlet);
  const to = portEnd(typed, node, 'inlet', inlet);
  if (!from || !to) return undefined;
  const type = typed.outletType({ node: ribbon.from, outlet: ribbon.outlet }) ?? 'number';
  return { key, ribbon, from, to, target: node, type, conversion: typed.conversionAt({ node, inlet }) };
}
