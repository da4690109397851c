import type { BrelvinDocument } from '@brelvin/contract';
import { newMaterial, newMesh, newSet } from '../document/new-documents';
import { IN_PLACE } from '../document/set';
import { graphInShort as graph } from '../document/graph-in-short';

/** What moves in the wind of the quay: silk, gauze, and oil-silk lanterns. */
export const CLOTH_DEMOS: readonly { readonly id: string; readonly document: BrelvinDocument }[] = [
  { id: 'set-festival-banner', document: festivalBanner() },
  { id: 'set-pennant-line', document: pennantLine() },
  { id: 'set-lantern-field', document: lanternField() },
  { id: 'material-gauze-pennants', document: gauzePennants() },
  { id: 'material-oil-silk-hull', document: oilSilkHull() },
  { id: 'material-festival-silk', document: festivalSilk() },
];

/** A banner held at its top edge: wind at the vertices, the swelling carried to the colour. */
function festivalSilk(): BrelvinDocument {
  return {
    ...newMaterial('Festival silk', { set: 'set-festival-banner', rig: 'rig-dusk-quay' }),
    tags: ['cloth'],
    surface: graph(
      {
        place: ['place', 0, 220],
        hung: ['invert', 260, 300],
        free: ['luminance', 520, 300],
        wind: ['windOffset', 800, 300, { towards: [0.35, 0, 1], strength: 0.42, gusts: 0.9, speed: 0.9 }],
        uv: ['uv', 0, 60],
        weave: ['stripes', 260, 60, { count: 9, width: 0.22 }],
        silk: ['gradientAsSeen', 520, 60, { stops: [0.16, 0.012, 0.03, 0, 0.5, 0.03, 0.05, 0.55, 0.85, 0.24, 0.08, 1] }],
        gold: ['colour', 520, 200, { value: [0.86, 0.56, 0.18] }],
        dyed: ['mix', 800, 80],
        light: ['stretchedHighlight', 1080, 20, { colour: [0.42, 0.3, 0.2] }],
        matte: ['orenNayar', 1080, 220],
        sheen: ['rim', 1080, 380, { colour: [0.95, 0.55, 0.4], strength: 0.32, power: 2.2 }],
        lit: ['add', 1350, 140],
        all: ['add', 1350, 260],
      },
      {
        'hung.colour': 'place.y',
        'free.value': 'hung.result',
        'wind.free': 'free.result',
        'weave.uv': 'uv.result',
        'silk.at': 'place.y',
        'dyed.a': 'silk.result',
        'dyed.b': 'gold.result',
        'dyed.amount': 'weave.result',
        'matte.base': 'dyed.result',
        'lit.a': 'light.result',
        'lit.b': 'matte.result',
        'all.a': 'lit.result',
        'all.b': 'sheen.result',
        'dock.colour': 'all.result',
        'dock.offset': 'wind.result',
      },
    ),
    notes: 'The banner of the quay festival. It hangs from its upper edge; what is lower is freer.',
  };
}

/** A glowing shell that swells as a wave goes by: rim broken by noise, brightest where it meets the floor. */
function oilSilkHull(): BrelvinDocument {
  return {
    ...newMaterial('Oil-silk hull', { set: 'set-lantern-field', rig: 'rig-lamp-room' }),
    tags: ['lantern'],
    surface: graph(
      {
        copy: ['randomByCopy', -260, 380],
        phase: ['multiply', 0, 380, { b: 3.8 }],
        time: ['time', 0, 480],
        later: ['add', 260, 420],
        pulse: ['travellingPulse', 520, 360, { height: 0.12, width: 0.22, every: 1.7, speed: 0.45 }],
        carried: ['carry', 800, 460],
        noise: ['fractalNoise', 0, 40, { scale: 3 }],
        facing: ['facing', 0, 220],
        edge: ['subtract', 260, 200, { a: 1 }],
        broken: ['add', 520, 120],
        rim: ['smoothstep', 800, 120, { low: 0.45, high: 1.25 }],
        film: ['cosinePalette', 800, 270, { middle: [0.5, 0.42, 0.45], swing: [0.4, 0.35, 0.4], start: [0.02, 0.18, 0.4] }],
        warm: ['colour', 1080, 340, { value: [0.9, 0.34, 0.08] }],
        tone: ['mix', 1350, 260],
        meeting: ['meetingGlow', 800, 580, { width: 0.16, power: 2.5 }],
        seen: ['add', 1080, 160],
        glow: ['maximum', 1080, 560],
        cover: ['add', 1350, 420],
        held: ['clamp', 1620, 420, { low: 0.06, high: 0.95 }],
        light: ['multiply', 1620, 240],
      },
      {
        'phase.a': 'copy.result',
        'later.a': 'phase.result',
        'later.b': 'time.result',
        'pulse.seconds': 'later.result',
        'carried.value': 'pulse.pulse',
        'edge.b': 'facing.result',
        'broken.a': 'edge.result',
        'broken.b': 'noise.result',
        'rim.value': 'broken.result',
        'film.at': 'broken.result',
        'tone.a': 'film.result',
        'tone.b': 'warm.result',
        'tone.amount': 'glow.result',
        'seen.a': 'rim.result',
        'seen.b': 'carried.result',
        'glow.a': 'meeting.result',
        'glow.b': 'carried.result',
        'cover.a': 'seen.result',
        'cover.b': 'meeting.result',
        'held.value': 'cover.result',
        'light.a': 'tone.result',
        'light.b': 'held.result',
        'dock.colour': 'light.result',
        'dock.opacity': 'held.result',
        'dock.offset': 'pulse.offset',
      },
    ),
    notes: 'Four hundred lanterns of oiled silk, each in its own time.',
  };
}

/** Strips cut out of gauze; their free ends go round in circles, each pennant in its own phase and one of two colours. */
function gauzePennants(): BrelvinDocument {
  return {
    ...newMaterial('Gauze pennants', { set: 'set-pennant-line', rig: 'rig-north-window' }),
    tags: ['cloth'],
    surface: graph(
      {
        place: ['place', 0, 240],
        uv: ['uv', 0, 60],
        strips: ['stripes', 280, 60, { count: 5, width: 0.62 }],
        tips: ['smoothstep', 280, 250, { low: 1, high: 0.1 }],
        phase: ['randomByCopy', 280, 400],
        swing: ['circlePath', 550, 300, { radius: 0.28, speed: 0.35, axis: [0, 1, 0] }],
        number: ['copyIndex', 0, 480],
        parity: ['modulo', 280, 500, { b: 2 }],
        sea: ['colour', 550, 520, { value: [0.1, 0.36, 0.42] }],
        rust: ['colour', 550, 600, { value: [0.62, 0.2, 0.08] }],
        dye: ['mix', 820, 540],
        light: ['wrapped', 1100, 480],
      },
      {
        'strips.uv': 'uv.result',
        'tips.value': 'place.y',
        'swing.mask': 'tips.result',
        'swing.phase': 'phase.result',
        'parity.a': 'number.result',
        'dye.a': 'sea.result',
        'dye.b': 'rust.result',
        'dye.amount': 'parity.result',
        'light.base': 'dye.result',
        'dock.colour': 'light.result',
        'dock.opacity': 'strips.result',
        'dock.offset': 'swing.result',
      },
    ),
    opacity: 'cut',
    notes: 'Gauze strung over the lane; the wind takes the ends round and round.',
  };
}

function festivalBanner(): BrelvinDocument {
  const banner = newMesh('sheet', { width: 1.7, height: 2.1, wave: 0.08, segments: 64 }, { name: 'Banner' });
  return { ...newSet('Festival banner'), tags: ['cloth'], meshes: { banner } };
}

function pennantLine(): BrelvinDocument {
  const pennant = newMesh(
    'plane',
    { width: 0.6, height: 1.3, segments: 24 },
    { name: 'Pennants', copies: { columns: 7, rows: 2, spacing: 0.75 }, placing: { ...IN_PLACE, turn: [0, 0.5, 0] } },
  );
  return { ...newSet('Pennant line'), tags: ['cloth'], meshes: { pennant } };
}

function lanternField(): BrelvinDocument {
  const lantern = newMesh(
    'sphere',
    { radius: 0.5, segments: 20, rings: 14 },
    { name: 'Lanterns', copies: { columns: 20, rows: 20, spacing: 1.02 } },
  );
  return {
    ...newSet('Lantern field'),
    tags: ['lantern'],
    meshes: { lantern },
    floor: { shown: true, height: -0.32, size: 110 },
  };
}
