import type { BrelvinDocument, Material, PartRule } from '@brelvin/contract';
import { GraphEdits } from '../document/graph-edits';
import { newMaterial, newMesh, newSet } from '../document/new-documents';
import { IN_PLACE } from '../document/set';
import { applyChanges } from '../document/transaction';
import { wireMapSet, type WiredMap } from '../maps/wire-map-set';
import { graphInShort as graph } from '../document/graph-in-short';
import { demoMap } from './demo-images';
import { JAR_MIDDLE, JAR_RELIEF } from './jar-maps';

const HERE = { set: 'set-jar-and-seal', rig: 'rig-north-window' };

const MAPS: readonly WiredMap[] = [
  { image: 'colour', packing: 'colour' },
  { image: 'roughness', packing: 'roughness' },
  { image: 'normal', packing: 'normal' },
  { image: 'height', packing: 'height' },
  { image: 'occlusion', packing: 'occlusion' },
];

/** The salt-glazed jar with its set of maps, and what stands about it. */
export const JAR_DEMOS: readonly { readonly id: string; readonly document: BrelvinDocument }[] = [
  { id: 'set-jar-and-seal', document: jarAndSeal() },
  { id: 'material-jar-glaze', document: plainGlaze() },
  { id: 'material-salt-glazed-jar', document: saltGlazedJar() },
];

/** Five maps laid on as anybody would: dropped together, looked over, wired in one step. */
function saltGlazedJar(): Material {
  const plain: Material = {
    ...newMaterial('Salt-glazed jar', HERE),
    tags: ['jar', 'maps'],
    images: {
      colour: demoMap('jar-colour', 'colour'),
      roughness: demoMap('jar-roughness'),
      normal: demoMap('jar-normal'),
      height: demoMap('jar-height'),
      occlusion: demoMap('jar-occlusion'),
    },
    notes: 'The height moves the body of the mesh; the normal map carries what is finer than its vertices.',
  };
  let count = 0;
  const wiring = wireMapSet(plain, { label: '', surface: 'physicalSurface', height: 'displacement', maps: MAPS }, () => `map${++count}`);
  const wired = applyChanges(plain, wiring.changes);
  const displaced = Object.entries(wired.surface.nodes).find(([, { kind }]) => kind === 'displaceByHeight')?.[0] ?? '';
  const edits = new GraphEdits();
  const scale = edits.setInletValue({ node: displaced, inlet: 'scale' }, JAR_RELIEF, 'scale');
  const middle = edits.setInletValue({ node: displaced, inlet: 'middle' }, JAR_MIDDLE, 'middle');
  return applyChanges(wired, [...scale.changes, ...middle.changes]);
}

/** Lip, foot and inside of the jar: the same glaze without a drawing. */
function plainGlaze(): Material {
  return {
    ...newMaterial('Jar glaze', HERE),
    tags: ['jar'],
    surface: graph(
      {
        drift: ['fractalNoise', 0, 60, { scale: 2.5 }],
        tone: ['mixAsSeen', 300, 60, { a: [0.2, 0.125, 0.06], b: [0.36, 0.28, 0.19] }],
        part: ['remap', 0, 260, { inLow: -0.6, inHigh: 0.6 }],
        glaze: ['physicalSurface', 600, 60, { roughness: 0.24 }],
      },
      { 'part.value': 'drift.result', 'tone.amount': 'part.result', 'glaze.baseColour': 'tone.result', 'dock.colour': 'glaze.result' },
    ),
    notes: 'Brown where it ran thick.',
  };
}

/** The jar on its board; a tallow seal that fell off its string beside it. */
function jarAndSeal(): BrelvinDocument {
  const rule = (order: number, mesh: string, pattern: string, material: string): PartRule => ({
    order,
    mesh,
    pattern,
    material: `material-${material}`,
    values: {},
  });
  return {
    ...newSet('Jar and seal'),
    tags: ['jar'],
    meshes: {
      jar: newMesh('jar', { segments: 256, rings: 192 }, { name: 'Jar' }),
      seal: newMesh(
        'roundedBox',
        { width: 0.42, height: 0.12, depth: 0.42, radius: 0.06 },
        { name: 'Seal', order: 1, placing: { ...IN_PLACE, position: [0.95, -0.94, 0.5], turn: [0, 0.5, 0] } },
      ),
    },
    floor: { shown: true, height: -1, size: 12 },
    partRules: {
      glaze: rule(0, 'jar', '*', 'jar-glaze'),
      body: rule(1, 'jar', 'body', 'salt-glazed-jar'),
      seal: rule(2, 'seal', '*', 'tallow-seal'),
    },
  };
}
