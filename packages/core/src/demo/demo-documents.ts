import type { BrelvinDocument, PartRule } from '@brelvin/contract';
import { newMaterial, newMesh, newSet } from '../document/new-documents';
import { IN_PLACE } from '../document/set';
import { CLOTH_DEMOS } from './cloth-demos';
import { CODE_DEMOS } from './code-demos';
import { graphInShort as graph } from '../document/graph-in-short';
import { DEMO_RIGS } from './demo-rigs';
import { JAR_DEMOS } from './jar-demos';
import { LAMP_DEMOS } from './lamp-demos';
import { NET_STORE_DEMOS } from './net-store';
import { LABEL_ASSETS, LABEL_SIDE, LABELS, type LabelName } from './label-images';

/** The documents of a fresh start, from the Tern & Tallow lantern loft. */
export const DEMO_DOCUMENTS: readonly { readonly id: string; readonly document: BrelvinDocument }[] = [
  { id: 'set-plain-sphere', document: newSet('Plain sphere') },
  { id: 'set-knotted-rope', document: newSet('Knotted rope', 'torusKnot') },
  { id: 'set-puppet-on-stand', document: puppetOnStand() },
  { id: 'set-label-cube', document: labelCube() },
  ...DEMO_RIGS,
  ...LABELS.map((label) => ({ id: `material-label-${label}`, document: labelMaterial(label) })),
  ...CLOTH_DEMOS,
  ...CODE_DEMOS,
  ...LAMP_DEMOS,
  ...JAR_DEMOS,
  ...NET_STORE_DEMOS,
  { id: 'material-kite-dusk', document: kiteDusk() },
  { id: 'material-painted-eyes', document: paintedEyes() },
  { id: 'material-puppet-hair', document: puppetHair() },
  { id: 'material-puppet-cheek', document: puppetCheek() },
];

/** Toon bands in warm skin, the shade tinted, and a rim against the dark stage. */
function puppetCheek(): BrelvinDocument {
  return {
    ...newMaterial('Puppet cheek', { set: 'set-puppet-on-stand', rig: 'rig-north-window' }),
    tags: ['puppet'],
    surface: graph(
      {
        skin: ['colour', 50, 60, { value: [0.87, 0.46, 0.31] }],
        bands: ['bands', 320, 40, { count: 3, softness: 0.04, floor: 0.42, tint: [0.72, 0.36, 0.5] }],
        rim: ['rim', 320, 276, { colour: [1, 0.72, 0.5], strength: 0.55, power: 4 }],
        both: ['add', 600, 120],
      },
      { 'bands.base': 'skin.result', 'both.a': 'bands.result', 'both.b': 'rim.result', 'dock.colour': 'both.result' },
    ),
    outline: { method: 'hull', width: 2, unit: 'pixels', hidden: false },
    notes: 'Skin of the travelling puppets: three flat steps, the darkest towards plum.',
  };
}

/** Hair in two bands, with a crisp highlight built by hand from the sun's direction. */
function puppetHair(): BrelvinDocument {
  return {
    ...newMaterial('Puppet hair', { set: 'set-puppet-on-stand', rig: 'rig-north-window' }),
    tags: ['puppet'],
    surface: graph(
      {
        sun: ['sun', 0, 0],
        eye: ['viewDirection', 0, 110],
        between: ['add', 210, 20],
        half: ['normalize', 425, 20],
        facing: ['normal', 425, 100],
        hair: ['colour', 425, 190, { value: [0.19, 0.05, 0.04] }],
        spot: ['dot', 640, 20],
        bands: ['bands', 640, 150, { count: 2, softness: 0.03, floor: 0.3, tint: [0.45, 0.3, 0.75] }],
        edge: ['smoothstep', 850, 20, { low: 0.958, high: 0.966 }],
        shine: ['colour', 850, 250, { value: [0.84, 0.4, 0.22] }],
        both: ['mix', 1060, 130],
      },
      {
        'between.a': 'sun.direction',
        'between.b': 'eye.result',
        'half.value': 'between.result',
        'spot.a': 'half.result',
        'spot.b': 'facing.result',
        'edge.value': 'spot.result',
        'bands.base': 'hair.result',
        'both.a': 'bands.result',
        'both.b': 'shine.result',
        'both.amount': 'edge.result',
        'dock.colour': 'both.result',
      },
    ),
    outline: { method: 'hull', width: 2, unit: 'pixels', hidden: false },
    notes: 'The highlight is the half vector between sun and eye against the normal, cut off where it is nearly straight.',
  };
}

/** Two gradients from the bottom of the kite to its top, blended from its left to its right, still lit. */
function kiteDusk(): BrelvinDocument {
  return {
    ...newMaterial('Kite dusk', { set: 'set-plain-sphere', rig: 'rig-dusk-quay' }),
    surface: graph(
      {
        place: ['place', 50, 120],
        dusk: ['gradient', 320, 20, { stops: [0.012, 0.02, 0.09, 0, 0.19, 0.05, 0.24, 0.35, 0.86, 0.2, 0.11, 0.62, 0.98, 0.66, 0.28, 1] }],
        night: ['gradientAsSeen', 320, 180, { stops: [0.006, 0.01, 0.03, 0, 0.03, 0.09, 0.2, 0.5, 0.35, 0.5, 0.55, 1] }],
        side: ['smoothstep', 320, 340, { low: 0.35, high: 0.95 }],
        both: ['mix', 600, 120],
        light: ['blinnPhong', 880, 120, { specular: [0.16, 0.16, 0.16], exponent: 24 }],
      },
      {
        'dusk.at': 'place.y',
        'night.at': 'place.y',
        'side.value': 'place.x',
        'both.a': 'dusk.result',
        'both.b': 'night.result',
        'both.amount': 'side.result',
        'light.base': 'both.result',
        'dock.colour': 'light.result',
      },
    ),
    notes: 'Paper kite at nightfall: the colours run from its tail up to its point, and night comes from the right.',
  };
}

/** Drawn over the hair from every view: white, an iris and a pupil by the place on the eye. */
function paintedEyes(): BrelvinDocument {
  return {
    ...newMaterial('Painted eyes', { set: 'set-puppet-on-stand', rig: 'rig-north-window' }),
    surface: graph(
      {
        facing: ['normal', 0, 60],
        ahead: ['combine', 0, 150, { x: 0, y: 0, z: 1 }],
        straight: ['dot', 250, 80],
        iris: ['smoothstep', 500, 70, { low: 0.8, high: 0.83 }],
        pupil: ['smoothstep', 500, 220, { low: 0.94, high: 0.96 }],
        ink: ['colour', 500, 370, { value: [0.02, 0.02, 0.03] }],
        white: ['colour', 500, -90, { value: [0.93, 0.91, 0.86] }],
        tide: ['colour', 500, -10, { value: [0.05, 0.24, 0.3] }],
        sea: ['mix', 750, 20],
        painted: ['mix', 1000, 60],
        light: ['bands', 1250, 60, { count: 2, softness: 0.03, floor: 0.75, tint: [0.7, 0.75, 0.95] }],
      },
      {
        'straight.a': 'facing.result',
        'straight.b': 'ahead.result',
        'iris.value': 'straight.result',
        'pupil.value': 'straight.result',
        'sea.a': 'white.result',
        'sea.b': 'tide.result',
        'sea.amount': 'iris.result',
        'painted.a': 'sea.result',
        'painted.b': 'ink.result',
        'painted.amount': 'pupil.result',
        'light.base': 'painted.result',
        'dock.colour': 'light.result',
      },
    ),
    tags: ['puppet'],
    notes: 'The set lets the eyes count as nearer to the eye, so the fringe never hides them.',
  };
}

/** The puppet's head on its turned stand: four parts, three materials, eyes and brows over the hair. */
function puppetOnStand(): BrelvinDocument {
  const rule = (order: number, pattern: string, material: string, rest: Partial<PartRule> = {}): PartRule => ({
    order,
    mesh: 'head',
    pattern,
    material,
    values: {},
    ...rest,
  });
  const stand = { ...IN_PLACE, position: [0, -1.45, 0] };
  return {
    ...newSet('Puppet on stand'),
    tags: ['puppet'],
    meshes: {
      head: newMesh('puppetHead', {}, { name: 'Puppet head' }),
      stand: newMesh('cylinder', { radius: 0.5, height: 0.4 }, { name: 'Stand', order: 1, placing: stand }),
    },
    floor: { shown: true, height: -1.65, size: 12 },
    partRules: {
      skin: rule(0, 'skin', 'material-puppet-cheek'),
      hair: rule(1, 'hair', 'material-puppet-hair'),
      eyes: rule(2, 'eyes', 'material-painted-eyes', { depthOffset: 0.3, drawOrder: 2 }),
      brows: rule(3, 'brows', 'material-puppet-hair', { depthOffset: 0.3, drawOrder: 1 }),
      stand: { ...rule(4, '*', 'material-slate-of-tides'), mesh: 'stand' },
    },
  };
}

/** Six images on the six parts of a cube. */
function labelCube(): BrelvinDocument {
  const rules = LABELS.map((label, order): [string, PartRule] => [
    label,
    { order, pattern: label, material: `material-label-${label}`, values: {} },
  ]);
  const mesh = newMesh('cube', { size: 1.4 }, { name: 'Label cube' });
  return { ...newSet('Label cube'), meshes: { mesh }, partRules: Object.fromEntries(rules) };
}

function labelMaterial(label: LabelName): BrelvinDocument {
  const name = `Label, ${label}`;
  const surface = graph(
    { print: ['image', 50, 60], light: ['lambert', 380, 80] },
    { 'light.base': 'print.colour', 'dock.colour': 'light.result' },
  );
  const print = surface.nodes['print'];
  return {
    ...newMaterial(name, { set: 'set-label-cube', rig: 'rig-north-window' }),
    tags: ['label'],
    surface: print ? { ...surface, nodes: { ...surface.nodes, print: { ...print, image: 'print' } } } : surface,
    images: {
      print: {
        name: `Print ${label}`,
        asset: LABEL_ASSETS[label],
        width: LABEL_SIDE,
        height: LABEL_SIDE,
        role: 'colour',
        wrapX: 'clamp',
        wrapY: 'clamp',
        filter: 'smooth',
        uvSet: 0,
      },
    },
    notes: 'Paper labels for the lamp-oil crates.',
  };
}
