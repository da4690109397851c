import type { GraphNode, InletValue, Ribbon, NodeGroup } from '@brelvin/contract';
import { DOCK, EMPTY_GRAPH, ENTRY, inletKey } from '../document/graph';

const COLUMN = 220;

function node(kind: string, column: number, y: number, values: Readonly<Record<string, InletValue>> = {}): GraphNode {
  return { kind, rev: 1, x: 40 + column * COLUMN, y, values };
}

function from(source: string, outlet = 'result'): Ribbon {
  return { from: source, outlet };
}

/** A group to begin one's own lighting with: Lambert's law built by hand, summed over the lights. */
export const EACH_LIGHT_GROUP: NodeGroup = {
  title: 'For each light',
  help: 'Lighting of your own: what is inside is computed for each light of the rig, and summed.',
  eachLight: true,
  inlets: { base: { label: 'Colour', type: 'colour', order: 0, value: [0.8, 0.8, 0.8] } },
  outlets: { light: { label: 'Light', type: 'light', order: 0 } },
  graph: {
    ...EMPTY_GRAPH,
    nodes: {
      light: node('thisLight', 0, 120),
      normal: node('normal', 0, 40),
      cosine: node('dot', 1, 40),
      facing: node('clamp', 2, 40, { low: 0, high: 1 }),
      arriving: node('multiply', 2, 180),
      scattered: node('multiply', 3, 100),
      coloured: node('multiply', 4, 60),
      terms: node('lightFromTerms', 5, 60),
    },
    ribbons: {
      [inletKey('cosine', 'a')]: from('normal'),
      [inletKey('cosine', 'b')]: from('light', 'direction'),
      [inletKey('facing', 'value')]: from('cosine'),
      [inletKey('arriving', 'a')]: from('light', 'colour'),
      [inletKey('arriving', 'b')]: from('light', 'shadow'),
      [inletKey('scattered', 'a')]: from('arriving'),
      [inletKey('scattered', 'b')]: from('facing'),
      [inletKey('coloured', 'a')]: from('scattered'),
      [inletKey('coloured', 'b')]: from(ENTRY, 'base'),
      [inletKey('terms', 'diffuse')]: from('coloured'),
      [inletKey(DOCK, 'light')]: from('terms'),
    },
  },
};
