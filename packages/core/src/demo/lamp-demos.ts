import type { BrelvinDocument, Graph, PartRule } from '@brelvin/contract';
import { newMaterial, newMesh, newSet } from '../document/new-documents';
import { IN_PLACE } from '../document/set';
import { graphInShort as graph } from '../document/graph-in-short';
import { demoMap } from './demo-images';
import { TALLOW_ASSET, TALLOW_SIDE } from './tallow-matcap';

const HERE = { set: 'set-lamp-on-the-sill', rig: 'rig-north-window' };

/** The lamp on the sill, and what lies about it. */
export const LAMP_DEMOS: readonly { readonly id: string; readonly document: BrelvinDocument }[] = [
  { id: 'set-lamp-on-the-sill', document: lampOnTheSill() },
  { id: 'set-glass-oil-filler', document: glassOilFiller() },
  { id: 'material-tallow-seal', document: tallowSeal() },
  { id: 'material-lamp-wick', document: lampWick() },
  { id: 'material-lacquered-float', document: lacqueredFloat() },
  { id: 'material-sea-frosted-globe', document: seaFrostedGlobe() },
  { id: 'material-burner-brass', document: burnerBrass() },
  { id: 'material-lamp-chimney', document: lampChimney() },
];

/** Blown glass of one wall: wick and burner are seen through it. */
function lampChimney(): BrelvinDocument {
  return {
    ...newMaterial('Lamp chimney', HERE),
    tags: ['lamp', 'glass'],
    surface: graph(
      {
        glass: [
          'physicalSurface',
          260,
          60,
          { baseColour: [0.98, 0.99, 0.98], roughness: 0.03, ior: 1.5, thickness: 0.03, absorbed: [0.82, 0.93, 0.9], absorbedAt: 0.12 },
          ['hasTransmission', 'hasVolume'],
        ],
      },
      { 'dock.colour': 'glass.result' },
    ),
    notes: 'Clear glass with a thickness of three centimetres, tinted a little where much of it is looked through.',
  };
}

/** Glass that the sea has worn: rough in patches, green where it is thick. */
function seaFrostedGlobe(): BrelvinDocument {
  return {
    ...newMaterial('Sea-frosted globe', HERE),
    tags: ['lamp', 'glass'],
    surface: graph(
      {
        worn: ['fractalNoise', 0, 60, { scale: 3.5 }],
        rough: ['remap', 280, 60, { inLow: -0.5, inHigh: 0.5, outLow: 0.16, outHigh: 0.4 }],
        glass: [
          'physicalSurface',
          460,
          60,
          { baseColour: [0.96, 0.98, 0.97], ior: 1.45, thickness: 0.45, absorbed: [0.3, 0.72, 0.66], absorbedAt: 0.5 },
          ['hasTransmission', 'hasVolume'],
        ],
      },
      { 'rough.value': 'worn.result', 'glass.roughness': 'rough.result', 'dock.colour': 'glass.result' },
    ),
    notes: 'A net float of green glass, frosted by sand. The noise says where it was rubbed most.',
  };
}

/** Turned brass: brushed round its axis, dull where fingers and soot were. */
function burnerBrass(): BrelvinDocument {
  return {
    ...newMaterial('Burner brass', HERE),
    tags: ['lamp', 'maps'],
    surface: withImage(
      graph(
        {
          worn: ['image', 0, 60],
          open: ['occlusionStrength', 300, 60, { strength: 0.9 }],
          brass: ['physicalSurface', 600, 60, { baseColour: [0.86, 0.61, 0.26], anisotropy: 0.75 }, ['hasAnisotropy']],
        },
        {
          'open.map': 'worn.red',
          'brass.occlusion': 'open.result',
          'brass.roughness': 'worn.green',
          'brass.metallic': 'worn.blue',
          'dock.colour': 'brass.result',
        },
      ),
      'worn',
    ),
    images: { worn: { ...demoMap('brass-orm'), wrapY: 'repeat' } },
    notes:
      'One image holds three maps: occlusion, roughness, metallic. The grooves run round the lathe’s axis, so highlights stretch up and down.',
  };
}

/** Red lacquer over metal flakes, under a clear coat. */
function lacqueredFloat(): BrelvinDocument {
  return {
    ...newMaterial('Lacquered float', HERE),
    tags: ['lamp', 'maps'],
    surface: withImage(
      graph(
        {
          flakes: ['flakes', 0, 80, { scale: 70, density: 0.7, size: 0.9, spread: 0.28 }],
          lacquer: ['colour', 0, 290, { value: [0.36, 0.012, 0.02] }],
          flake: ['colour', 0, 360, { value: [0.72, 0.16, 0.1] }],
          colour: ['mix', 300, 260],
          metal: ['multiply', 300, 120, { b: 0.85 }],
          scratches: ['image', 0, 430, { repeat: [3, 2] }],
          worn: ['normalFromMap', 300, 420, { strengthX: 0.7, strengthY: 0.7 }],
          paint: ['physicalSurface', 600, 80, { roughness: 0.38, coat: 1, coatRoughness: 0.03 }, ['hasCoat']],
        },
        {
          'colour.a': 'lacquer.result',
          'colour.b': 'flake.result',
          'colour.amount': 'flakes.flake',
          'metal.a': 'flakes.flake',
          'paint.baseColour': 'colour.result',
          'paint.metallic': 'metal.result',
          'paint.normal': 'flakes.normal',
          'worn.map': 'scratches.colour',
          'paint.coatNormal': 'worn.result',
          'dock.colour': 'paint.result',
        },
      ),
      'scratches',
    ),
    images: { scratches: { ...demoMap('float-scratches'), wrapY: 'repeat' } },
    notes: 'Each flake is a tiny mirror of its own direction; the coat on top is smooth but for the scratches of years at sea.',
  };
}

/** Red tallow pressed with a seal: the light is in the picture of a ball. */
function tallowSeal(): BrelvinDocument {
  const surface = graph({ wax: ['matcap', 320, 60] }, { 'dock.colour': 'wax.result' });
  const wax = surface.nodes['wax'];
  return {
    ...newMaterial('Tallow seal', HERE),
    tags: ['lamp'],
    surface: wax ? { ...surface, nodes: { wax: { ...wax, image: 'ball' } } } : surface,
    images: {
      ball: {
        name: 'Tallow ball',
        asset: TALLOW_ASSET,
        width: TALLOW_SIDE,
        height: TALLOW_SIDE,
        role: 'colour',
        wrapX: 'clamp',
        wrapY: 'clamp',
        filter: 'smooth',
        uvSet: 0,
      },
    },
    notes: 'Lit by a picture of a ball, so it looks the same in every light.',
  };
}

/** Charred at its end, glowing. */
function lampWick(): BrelvinDocument {
  return {
    ...newMaterial('Lamp wick', HERE),
    tags: ['lamp'],
    surface: graph(
      {
        wick: [
          'physicalSurface',
          260,
          60,
          { baseColour: [0.2, 0.16, 0.12], roughness: 0.9, emission: [1, 0.42, 0.1], emissionStrength: 2.5 },
          ['hasEmission'],
        ],
      },
      { 'dock.colour': 'wick.result' },
    ),
    notes: 'It only glows; the flame is out.',
  };
}

/** The node that shows the image of its own name. */
function withImage(surface: Graph, id: string): Graph {
  const node = surface.nodes[id];
  return node ? { ...surface, nodes: { ...surface.nodes, [id]: { ...node, image: id } } } : surface;
}

function rule(order: number, mesh: string, pattern: string, material: string, changes: Partial<PartRule> = {}): PartRule {
  return { order, mesh, pattern, material: `material-${material}`, values: {}, ...changes };
}

/** The lamp in the middle of the sill; a globe and a float beside it, a seal in front. */
function lampOnTheSill(): BrelvinDocument {
  const at = (x: number, y: number, z: number, turn: readonly number[] = [0, 0, 0]) => ({ ...IN_PLACE, position: [x, y, z], turn });
  return {
    ...newSet('Lamp on the sill'),
    tags: ['lamp'],
    meshes: {
      lamp: newMesh('lamp', {}, { name: 'Lamp' }),
      globe: newMesh('sphere', { radius: 0.42 }, { name: 'Globe', order: 1, placing: at(0.98, -0.68, -0.12) }),
      float: newMesh('sphere', { radius: 0.34 }, { name: 'Float', order: 2, placing: at(-0.92, -0.76, 0.06) }),
      seal: newMesh(
        'roundedBox',
        { width: 0.42, height: 0.12, depth: 0.42, radius: 0.06 },
        { name: 'Seal', order: 3, placing: at(0.3, -1.04, 0.86, [0, 0.4, 0]) },
      ),
    },
    floor: { shown: true, height: -1.1, size: 12 },
    partRules: {
      chimney: rule(0, 'lamp', 'chimney', 'lamp-chimney', { casts: false }),
      burner: rule(1, 'lamp', 'burner', 'burner-brass'),
      wick: rule(2, 'lamp', 'wick', 'lamp-wick'),
      globe: rule(3, 'globe', '*', 'sea-frosted-globe', { casts: false }),
      float: rule(4, 'float', '*', 'lacquered-float'),
      seal: rule(5, 'seal', '*', 'tallow-seal'),
    },
  };
}

/** The filler blown of glass: a sheet whose inside and outside are both seen. */
function glassOilFiller(): BrelvinDocument {
  return {
    ...newSet('Glass oil filler'),
    tags: ['lamp', 'glass'],
    meshes: { filler: newMesh('oilFiller', {}, { name: 'Oil filler' }) },
    partRules: { glass: rule(0, 'filler', '*', 'lamp-chimney', { casts: false, faces: 'both' }) },
  };
}
