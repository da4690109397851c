import type { BrelvinDocument, DistanceField, Graph, Material, PartRule } from '@brelvin/contract';
import { graphInShort as graph } from '../document/graph-in-short';
import { newMaterial, newMesh, newSet } from '../document/new-documents';
import { emptyField, newCodedField } from '../compile/code/new-field';
import { NET_STORE_CODE } from './net-store-code';

const HERE = { set: 'set-net-store', rig: 'rig-dusk-quay' };

/** The store where nets and floats hang over winter: a hall without a polygon, as a graph and as code. */
export const NET_STORE_DEMOS: readonly { readonly id: string; readonly document: BrelvinDocument }[] = [
  { id: 'field-net-store', document: netStore() },
  { id: 'field-net-store-code', document: { ...newCodedField('Net store in code', NET_STORE_CODE), tags: ['net store'] } },
  { id: 'set-net-store', document: hall() },
  { id: 'material-store-boards', document: boards() },
];

function netStore(): DistanceField {
  const surface = graph(
    {
      // Arches: one, repeated along z, on stepped plinths that a mirror doubles.
      bay: ['spaceRepeated', 0, 0, { spacing: [0, 0, 2], copies: [0, 0, 5] }],
      archPlace: ['spaceMoved', 280, 0, { offset: [0, 1.6, 0] }],
      arch: ['archField', 540, 0, { radius: 1.9, legs: 1.6, thickness: 0.32, depth: 0.4 }],
      sides: ['spaceMirrored', 280, 140],
      plinthPlace: ['spaceMoved', 540, 200, { offset: [1.9, 0.15, 0] }],
      plinth: ['boxField', 800, 200, { size: [0.6, 0.3, 0.7], rounding: 0.02 }],
      stone: ['fieldUnionStairs', 1060, 60, { size: 0.12, steps: 3 }],
      arches: ['fieldRegion', 1320, 60],
      // The floor, and where the arches meet it.
      boardPlace: ['spaceMoved', 800, 360, { offset: [0, -0.1, 0] }],
      board: ['boxField', 1060, 340, { size: [6, 0.2, 11] }],
      boards: ['fieldRegion', 1320, 340],
      ground: ['fieldUnionChamfered', 1580, 160, { size: 0.1 }],
      // Racks between the arches: a frame with a shelf.
      between: ['spaceMoved', 0, 560, { offset: [0, 0, 1] }],
      gaps: ['spaceRepeated', 260, 560, { spacing: [0, 0, 2], copies: [0, 0, 4] }],
      pair: ['spaceMirrored', 540, 560],
      rackPlace: ['spaceMoved', 800, 560, { offset: [1.9, 0.7, 0] }],
      frame: ['boxFrameField', 1060, 520, { size: [0.6, 1.4, 1.2], thickness: 0.06 }],
      shelf: ['boxField', 1060, 660, { size: [0.6, 0.05, 1.2] }],
      rack: ['fieldUnion', 1320, 560],
      racks: ['fieldRegion', 1580, 560],
      // Floats lie on the shelves in rows of three.
      onShelf: ['spaceMoved', 1060, 820, { offset: [0, 0.165, 0] }],
      row: ['spaceRepeated', 1320, 820, { spacing: [0, 0, 0.34], copies: [0, 0, 3] }],
      ball: ['sphereField', 1600, 780, { radius: 0.14 }],
      upright: ['spaceTurned', 1600, 900, { axis: [1, 0, 0], angle: 1.5708 }],
      collar: ['torusField', 1860, 900, { radius: 0.13, thickness: 0.03 }],
      float: ['fieldUnionRound', 2120, 820, { radius: 0.03 }],
      // The large one in the middle wobbles by a product of sines.
      middle: ['spaceMoved', 540, 1100, { offset: [0, 0.9, 0] }],
      egg: ['ellipsoidField', 1340, 1080, { radii: [0.5, 0.6, 0.5] }],
      often: ['multiply', 800, 1180, { b: 7 }],
      sines: ['sine', 1060, 1180],
      parts: ['split', 1320, 1200],
      twoSines: ['multiply', 1600, 1180],
      threeSines: ['multiply', 1860, 1200],
      depth: ['multiply', 2120, 1180, { b: 0.06 }],
      wobble: ['fieldDisplace', 2120, 1060, { steepest: 0.5 }],
      allFloats: ['fieldUnion', 2380, 940],
      floats: ['fieldRegion', 2640, 940],
      // A roof of laths, crosswise.
      across: ['spaceMoved', 1060, 1400, { offset: [0, 3.75, 0] }],
      lathsAcross: ['spaceRepeated', 1320, 1400, { spacing: [0, 0, 0.5], copies: [0, 0, 20] }],
      lathAcross: ['boxField', 1600, 1400, { size: [4.6, 0.08, 0.12] }],
      along: ['spaceMoved', 1060, 1560, { offset: [0, 3.83, 0] }],
      lathsAlong: ['spaceRepeated', 1320, 1560, { spacing: [0.7, 0, 0], copies: [7, 0, 0] }],
      lathAlong: ['boxField', 1600, 1560, { size: [0.1, 0.08, 10.2] }],
      lattice: ['fieldUnion', 1860, 1460],
      roof: ['fieldRegion', 2120, 1460],
      // All of it.
      lower: ['fieldUnion', 1860, 360],
      upper: ['fieldUnion', 2900, 1000],
      all: ['fieldUnion', 3160, 600],
    },
    {
      'archPlace.position': 'bay.position',
      'arch.position': 'archPlace.result',
      'sides.position': 'bay.position',
      'plinthPlace.position': 'sides.result',
      'plinth.position': 'plinthPlace.result',
      'stone.a': 'arch.result',
      'stone.b': 'plinth.result',
      'arches.distance': 'stone.result',
      'board.position': 'boardPlace.result',
      'boards.distance': 'board.result',
      'ground.a': 'boards.result',
      'ground.b': 'arches.result',
      'gaps.position': 'between.result',
      'pair.position': 'gaps.position',
      'rackPlace.position': 'pair.result',
      'frame.position': 'rackPlace.result',
      'shelf.position': 'rackPlace.result',
      'rack.a': 'frame.result',
      'rack.b': 'shelf.result',
      'racks.distance': 'rack.result',
      'onShelf.position': 'rackPlace.result',
      'row.position': 'onShelf.result',
      'ball.position': 'row.position',
      'upright.position': 'row.position',
      'collar.position': 'upright.result',
      'float.a': 'ball.result',
      'float.b': 'collar.result',
      'egg.position': 'middle.result',
      'often.a': 'middle.result',
      'sines.a': 'often.result',
      'parts.value': 'sines.result',
      'twoSines.a': 'parts.x',
      'twoSines.b': 'parts.y',
      'threeSines.a': 'twoSines.result',
      'threeSines.b': 'parts.z',
      'depth.a': 'threeSines.result',
      'wobble.distance': 'egg.result',
      'wobble.amount': 'depth.result',
      'allFloats.a': 'float.result',
      'allFloats.b': 'wobble.result',
      'floats.distance': 'allFloats.result',
      'lathsAcross.position': 'across.result',
      'lathAcross.position': 'lathsAcross.position',
      'lathsAlong.position': 'along.result',
      'lathAlong.position': 'lathsAlong.position',
      'lattice.a': 'lathAcross.result',
      'lattice.b': 'lathAlong.result',
      'roof.distance': 'lattice.result',
      'lower.a': 'ground.result',
      'lower.b': 'racks.result',
      'upper.a': 'floats.result',
      'upper.b': 'roof.result',
      'all.a': 'lower.result',
      'all.b': 'upper.result',
      'dock.field': 'all.result',
    },
  );
  return {
    ...emptyField('Net store'),
    tags: ['net store'],
    surface: named(surface, { arches: 'Arches', boards: 'Boards', racks: 'Racks', floats: 'Floats', roof: 'Roof' }),
    notes: 'Two rows of racks under five arches. Each solid is there once; space is repeated and mirrored before it is asked.',
  };
}

/** Nodes that bear names of their own. */
function named(surface: Graph, names: Readonly<Record<string, string>>): Graph {
  const nodes = Object.entries(surface.nodes).map(([id, node]) => [id, names[id] === undefined ? node : { ...node, name: names[id] }]);
  return { ...surface, nodes: Object.fromEntries(nodes) as Graph['nodes'] };
}

function hall(): BrelvinDocument {
  const rule = (order: number, pattern: string, material: string): PartRule => ({ order, mesh: 'store', pattern, material, values: {} });
  const store = newMesh('field', { width: 6.2, height: 9, depth: 11.2 }, { name: 'Net store', field: 'field-net-store' });
  return {
    ...newSet('Net store'),
    tags: ['net store'],
    meshes: { store },
    partRules: {
      arches: rule(0, 'Arches', 'material-slate-of-tides'),
      racks: rule(1, 'Racks', 'material-burner-brass'),
      floats: rule(2, 'Floats', 'material-lacquered-float'),
    },
    views: {
      inside: {
        name: 'From the door',
        order: 0,
        camera: { target: [0, 1.5, 0], distance: 7.4, azimuth: 0.16, elevation: 0.1, fieldOfView: 0.8 },
      },
    },
  };
}

/** Boards in two woods, chequered by their place in the hall. */
function boards(): Material {
  return {
    ...newMaterial('Store boards', HERE),
    tags: ['net store'],
    surface: graph(
      {
        place: ['position', 0, 60],
        parts: ['split', 220, 60],
        ground: ['combine', 440, 60],
        chequers: ['checker', 680, 60, { count: 1.6 }],
        woods: ['mixAsSeen', 940, 60, { a: [0.42, 0.27, 0.15], b: [0.19, 0.11, 0.06] }],
        light: ['blinnPhong', 1200, 60, { specular: [0.05, 0.05, 0.05], exponent: 16 }],
      },
      {
        'parts.value': 'place.result',
        'ground.x': 'parts.x',
        'ground.y': 'parts.z',
        'chequers.uv': 'ground.result',
        'woods.amount': 'chequers.result',
        'light.base': 'woods.result',
        'dock.colour': 'light.result',
      },
    ),
    notes: 'Chequers are averaged over what a pixel covers, so that the far end of the hall does not shimmer.',
  };
}
