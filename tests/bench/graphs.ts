import type { GraphNode, Ribbon } from '@brelvin/contract';
import { EMPTY_GRAPH, type MaterialSource } from '@brelvin/core';

/** A material of `count` nodes that all reach the dock: chains of arithmetic and patterns of place, lit at the end. */
export function wideMaterial(count: number): MaterialSource {
  const nodes: Record<string, GraphNode> = {};
  const ribbons: Record<string, Ribbon> = {};
  let index = 0;
  const add = (id: string, kind: string): void => {
    nodes[id] = { kind, rev: 1, x: (index % 40) * 220, y: Math.floor(index / 40) * 160, values: {} };
    index++;
  };
  add('place', 'place');
  add('light', 'lambert');
  const kinds = ['multiply', 'add', 'sine', 'mix', 'clamp', 'smoothstep'];
  const first = (kind: string): string => ({ mix: 'a', clamp: 'value', smoothstep: 'value' })[kind] ?? 'a';
  let before = { from: 'place', outlet: 'x' };
  for (let link = 0; link < count - 2; link++) {
    const kind = kinds[link % kinds.length] ?? 'add';
    add(`n${link}`, kind);
    ribbons[`n${link}.${first(kind)}`] = before;
    before = { from: `n${link}`, outlet: 'result' };
  }
  ribbons['light.base'] = before;
  ribbons['dock.colour'] = { from: 'light', outlet: 'result' };
  return { surface: { ...EMPTY_GRAPH, nodes, ribbons }, parameters: {}, groups: {}, images: {} };
}
