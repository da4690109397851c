import type { Change, Graph, GraphNode, Material, Outline, Ribbon } from '@brelvin/contract';
import type { Edit } from './edit';
import { graphInShort } from './graph-in-short';
import { FIRST_OUTLINE } from './material';

/** Something to begin a graph with. */
export interface Starter {
  readonly id: string;
  /** One or two words. */
  readonly title: string;
  /** What one gets, in a sentence. */
  readonly help: string;
  readonly surface: Graph;
  readonly outline?: Outline;
}

/** What one often wants, ready to be changed; each is lit, and right from the first picture. */
export const STARTERS: readonly Starter[] = [
  {
    id: 'toon',
    title: 'toon',
    help: 'Light in flat steps, a rim, and a line round the silhouette.',
    outline: FIRST_OUTLINE,
    surface: graphInShort(
      {
        colour: ['colour', 40, 120, { value: [0.8, 0.32, 0.22] }],
        bands: ['bands', 290, 80, { count: 3, softness: 0.03, floor: 0.35, tint: [0.62, 0.55, 0.8] }],
        rim: ['rim', 290, 330, { strength: 0.4, power: 4 }],
        sum: ['add', 560, 180],
      },
      { 'bands.base': 'colour.result', 'sum.a': 'bands.result', 'sum.b': 'rim.result', 'dock.colour': 'sum.result' },
    ),
  },
  {
    id: 'physical',
    title: 'metal and paint',
    help: 'One physical surface: metallic and roughness say whether it is metal, paint, plastic or plaster.',
    surface: graphInShort(
      { surface: ['physicalSurface', 300, 80, { baseColour: [0.9, 0.6, 0.25], metallic: 1, roughness: 0.3 }] },
      { 'dock.colour': 'surface.result' },
    ),
  },
  {
    id: 'glass',
    title: 'glass',
    help: 'A physical surface with transmission and volume: it refracts what is behind it.',
    surface: graphInShort(
      {
        glass: [
          'physicalSurface',
          300,
          60,
          { baseColour: [0.97, 0.99, 0.98], roughness: 0.04, thickness: 0.4, absorbed: [0.7, 0.9, 0.86], absorbedAt: 0.6 },
          ['hasTransmission', 'hasVolume'],
        ],
      },
      { 'dock.colour': 'glass.result' },
    ),
  },
  {
    id: 'textured',
    title: 'textured',
    help: 'A physical surface with a brick pattern in colour, roughness and relief; put images of your own in its place.',
    surface: graphInShort(
      {
        brick: ['brick', -260, 120, { rows: 10 }],
        mortar: ['colour', 0, 330, { value: [0.62, 0.6, 0.56] }],
        stone: ['colour', 0, 400, { value: [0.5, 0.16, 0.1] }],
        colour: ['mix', 270, 300],
        rough: ['mix', 270, 430, { a: 0.6, b: 0.9 }],
        raised: ['oneMinus', 0, 60],
        relief: ['normalFromHeight', 270, 100, { strength: 0.02 }],
        surface: ['physicalSurface', 540, 120],
      },
      {
        'colour.a': 'stone.result',
        'colour.b': 'mortar.result',
        'colour.amount': 'brick.mortar',
        'rough.amount': 'brick.mortar',
        'raised.value': 'brick.mortar',
        'relief.height': 'raised.result',
        'surface.baseColour': 'colour.result',
        'surface.roughness': 'rough.result',
        'surface.normal': 'relief.result',
        'dock.colour': 'surface.result',
      },
    ),
  },
];

/** A material that begins so; its name, tags and all else stay. */
export function startedFrom(material: Material, { surface, outline }: Starter): Material {
  return { ...material, surface, ...(outline ? { outline } : {}) };
}

/** Puts a beginning onto an empty graph, as one step. */
export function startEdit({ title, surface, outline }: Starter): Edit {
  const put = (what: 'nodes' | 'ribbons'): Change[] =>
    Object.entries<GraphNode | Ribbon>(surface[what]).map(([id, value]): Change => ({ path: ['surface', what, id], value }));
  const line: Change[] = outline ? [{ path: ['outline'], value: outline }] : [];
  return {
    label: `Start from ${title}`,
    changes: [...put('nodes'), ...put('ribbons'), ...line],
  };
}
