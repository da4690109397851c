import { type MaterialImage, type Material, validate, MATERIAL } from '@brelvin/contract';
import { library } from '../catalogue/library';
import { compileMaterial } from '../compile/compile-material';
import { resolveGraph } from '../compile/resolve';
import type { Edit } from '../document/edit';
import { newMaterial } from '../document/new-documents';
import { applyChanges, invertChanges } from '../document/transaction';
import { compileFor } from '../emit/emitted-material';
import { GLSL_TARGET } from '../emit/glsl/target';
import type { Pixels } from '../image/mips';
import { countingIds, edited } from '../testing/graphs';
import { imageFacts } from './image-facts';
import { imageSeams, NO_SEAMS, wrapsOf } from './image-seams';
import { readMapName } from './map-names';
import { looksLikeMapSet, mapSetWords, proposeMapSet, type MapFile } from './map-set';
import { normalSense } from './normal-sense';
import type { PackingId } from './packings';
import { wireMapSet, type WiringPlan } from './wire-map-set';

const NAMES: Readonly<Record<string, PackingId | undefined>> = {
  'tern_jar_basecolor.png': 'colour',
  'TernJar_BaseColor_2K.png': 'colour',
  'TernJar-Albedo.jpg': 'colour',
  'tern jar diffuse.webp': 'colour',
  'jar_Roughness.png': 'roughness',
  'jar_rgh_4k.png': 'roughness',
  'jar_Glossiness.png': 'gloss',
  'jar_smoothness.png': 'gloss',
  'jar_Metalness-1024.png': 'metallic',
  'jar_spec.png': 'specular',
  'jar_NormalGL.png': 'normal',
  'jar_normal_opengl.png': 'normal',
  'jar_NormalDX.png': 'normalDown',
  'jar_nor_dx_2k.png': 'normalDown',
  'jar_nrm.png': 'normal',
  'jar_Displacement_16bit.png': 'height',
  'jar_bump.png': 'height',
  'jar_AmbientOcclusion.png': 'occlusion',
  'jar_AO.png': 'occlusion',
  'jar_opacity_mask.png': 'opacity',
  'jar_Emissive.png': 'emission',
  'jar_ORM.png': 'occlusionRoughnessMetallic',
  'jar_arm_1k.png': 'occlusionRoughnessMetallic',
  'jar_OcclusionRoughnessMetallic.png': 'occlusionRoughnessMetallic',
  'jar_rma.png': 'roughnessMetallicOcclusion',
  'jar_metallicRoughness.png': 'roughnessMetallic',
  'jar_SpecularGlossiness.png': 'specularGloss',
  'jar_n.png': 'normal',
  'jar_d.tif.png': 'colour',
  'maps/deep/normal.png': 'normal',
  'roughness_jar.png': 'roughness',
  'jar.png': undefined,
  'normalheim_castle.png': undefined,
  'colourful_parrot.jpg': undefined,
  '': undefined,
};

/** Normals of a height of 40 × 40 pixels, encoded. */
function normalMap(heightAt: (x: number, y: number) => number, greenUp: boolean): Pixels {
  const side = 40;
  const data = new Uint8Array(side * side * 4);
  for (let y = 0; y < side; y++) {
    for (let x = 0; x < side; x++) {
      const right = (heightAt(x + 1, y) - heightAt(x - 1, y)) / 2;
      const up = (heightAt(x, y - 1) - heightAt(x, y + 1)) / 2;
      const length = Math.hypot(right, up, 1);
      const normal = [-right / length, ((greenUp ? -1 : 1) * up) / length, 1 / length];
      data.set([...normal.map((each) => Math.round((each * 0.5 + 0.5) * 255)), 255], (y * side + x) * 4);
    }
  }
  return { width: side, height: side, data };
}

const bumps = (x: number, y: number): number => 3 * Math.sin(x * 0.4 + y * 0.25) * Math.cos(y * 0.35);

const evenPixels = (...colour: number[]): Pixels => ({
  width: 8,
  height: 8,
  data: Uint8Array.from({ length: 256 }, (_, at) => colour[at % 4]!),
});

describe('Names of maps', () => {
  for (const [name, packing] of Object.entries(NAMES))
    it(`read “${name}” as ${packing ?? 'nothing'}`, () => expect(readMapName(name)?.packing).toBe(packing));

  it('say of what they are maps, and which way green points', () => {
    expect(readMapName('Salt_jar_normal_gl_2k.png')).toEqual({ packing: 'normal', saysGreen: true, of: 'salt jar' });
    expect(readMapName('Salt_jar_nrm.png')?.saysGreen).toBeFalse();
  });
});

describe('The sense of a normal map', () => {
  it('is told by which reading does not curl', () => {
    expect(normalSense(normalMap(bumps, true)).green).toBe('up');
    expect(normalSense(normalMap(bumps, false)).green).toBe('down');
    expect(normalSense(normalMap(bumps, false)).certainty).toBeGreaterThan(0.5);
  });

  it('stays unclear for grooves along one axis, flat maps and tiny ones', () => {
    for (const heightAt of [(x: number) => Math.sin(x), (_: number, y: number) => Math.sin(y), () => 0])
      expect(normalSense(normalMap(heightAt, true)).green).toBe('unclear');
    expect(normalSense({ width: 1, height: 1, data: new Uint8Array(4) }).green).toBe('unclear');
  });
});

describe('Facts of an image', () => {
  it('are the one value of a channel, whether it is grey, and whether it holds normals', () => {
    const grey = imageFacts(evenPixels(51, 51, 51, 255));
    expect(grey.even.map((each) => each?.toFixed(3))).toEqual(['0.200', '0.200', '0.200', '1.000']);
    expect(grey.grey).toBeTrue();
    expect(grey.normals).toBeUndefined();
    const normals = imageFacts(normalMap(bumps, false));
    expect(normals.even.slice(0, 3)).toEqual([undefined, undefined, undefined]);
    expect(normals.normals?.green).toBe('down');
  });
});

describe('Seams of an image', () => {
  const picture = (value: (x: number, y: number) => number, width = 48, height = 32): Pixels => ({
    width,
    height,
    data: Uint8Array.from({ length: width * height * 4 }, (_, at) =>
      at % 4 === 3 ? 255 : Math.round(value((at >> 2) % width, Math.floor((at >> 2) / width))),
    ),
  });
  /** As good as random, always the same. */
  const noise = (x: number, y: number): number => (((x * 7919 + y * 104729 + x * y * 31) * 2654435761) >>> 8) % 256;

  it('are told where opposite edges do not continue each other, for each direction', () => {
    expect(imageSeams(picture((x) => x * 5))).toEqual({ across: true, down: false });
    expect(imageSeams(picture((_, y) => 250 - y * 7))).toEqual({ across: false, down: true });
    expect(imageSeams(picture((x, y) => 120 + 60 * Math.sin(x / 9) + 60 * Math.cos(y / 7)))).toEqual({ across: true, down: true });
    expect(wrapsOf({ across: true, down: false })).toEqual({ wrapX: 'clamp', wrapY: 'repeat' });
  });

  it('are none in what is made to repeat: waves, weaves, noise, one colour', () => {
    const turn = 2 * Math.PI;
    for (const value of [
      (x: number, y: number) => 128 + 90 * Math.sin((turn * 3 * x) / 48) * Math.cos((turn * 2 * y) / 32),
      (x: number, y: number) => (((x >> 2) + (y >> 2)) % 2 === 0 ? 20 : 220),
      noise,
      () => 77,
    ])
      expect(imageSeams(picture(value))).toEqual({ across: false, down: false });
    expect(imageSeams(picture(() => 9, 1, 1))).toEqual({ across: false, down: false });
  });

  it('count for a set of maps as most of them have it', () => {
    const seam = { across: true, down: true };
    expect(wrapsOf(seam, NO_SEAMS, NO_SEAMS)).toEqual({ wrapX: 'repeat', wrapY: 'repeat' });
    expect(wrapsOf(seam, undefined, seam)).toEqual({ wrapX: 'clamp', wrapY: 'clamp' });
    expect(wrapsOf(undefined)).toEqual({ wrapX: 'repeat', wrapY: 'repeat' });
  });
});

const file = (name: string, facts?: MapFile['facts'], side = 1024): MapFile => ({ name, width: side, height: side, facts });
const alphaUsed = imageFacts({ width: 2, height: 1, data: Uint8Array.from([9, 9, 9, 0, 9, 9, 9, 255]) });

describe('A set of maps', () => {
  it('is proposed by names, contents and what the other files tell', () => {
    const { name, surface, maps } = proposeMapSet([
      file('salt_jar_basecolor.png'),
      file('salt_jar_roughness.png'),
      file('salt_jar_gloss.png'),
      file('salt_jar_normal_dx.png'),
      file('salt_jar_normal_gl.png'),
      file('salt_jar_ao.png'),
      file('holiday.png'),
      file('unknown.png', imageFacts(normalMap(bumps, true))),
    ]);
    expect([name, surface]).toEqual(['Salt jar', 'physicalSurface']);
    expect(maps.map(({ packing }) => packing)).toEqual([
      'colour',
      'roughness',
      undefined,
      undefined,
      'normal',
      'occlusion',
      undefined,
      undefined,
    ]);
    expect(maps[2]?.because).toContain('salt_jar_roughness.png tells that already');
    expect(maps[6]?.because).toContain('does not say');
  });

  it('follows pixels where names say nothing: alpha that is used, and green that points down', () => {
    const { surface, maps } = proposeMapSet([
      file('oar_diffuse.png', alphaUsed),
      file('oar_specular.png', alphaUsed),
      file('oar_normal.png', imageFacts(normalMap(bumps, false))),
    ]);
    expect(maps.map(({ packing }) => packing)).toEqual(['colourOpacity', 'specularGloss', 'normalDown']);
    expect(surface).toBe('blinnPhong');
  });

  it('tells sizes that differ, what has no place, and a normal map read against its pixels', () => {
    const { maps } = proposeMapSet([file('a_color.png'), file('a_metal.png'), file('a_ao.png', undefined, 512)]);
    expect(mapSetWords(maps, 'physicalSurface').join()).toMatch(/most have 1024 × 1024, but a_ao.png \(512 × 512\)/);
    expect(mapSetWords(maps, 'blinnPhong').join()).toMatch(/Metallic \(a_metal.png\) means nothing/);
    const wrong = { file: file('b.png', imageFacts(normalMap(bumps, false))), packing: 'normal' as const, because: '' };
    expect(mapSetWords([wrong], 'physicalSurface').join()).toMatch(/as if green pointed down/);
    expect(mapSetWords([{ ...wrong, packing: 'normalDown' }], 'physicalSurface')).toEqual([]);
  });

  it('is only seen in names that tell different maps', () => {
    expect(looksLikeMapSet(['a_color.png', 'a_normal.png'])).toBeTrue();
    expect(looksLikeMapSet(['a_color.png', 'b_color.png'])).toBeFalse();
    expect(looksLikeMapSet(['a_orm.png'])).toBeFalse();
  });
});

const image: MaterialImage = {
  name: 'Map',
  asset: 'b'.repeat(64),
  width: 8,
  height: 8,
  role: 'data',
  wrapX: 'repeat',
  wrapY: 'repeat',
  filter: 'smooth',
  uvSet: 0,
};

const FULL: readonly PackingId[] = ['colourOpacity', 'specularGloss', 'metallic', 'normalDown', 'height', 'occlusion', 'emission'];

function countingFrom(first: number): () => string {
  return () => `i${first++}`;
}

function wired(
  plan: Partial<WiringPlan> = {},
  base: Material = newMaterial('Jar'),
  packings = FULL,
  newId = countingIds(),
): { material: Material; edit: Edit } {
  const images = Object.fromEntries(packings.map((packing) => [packing, { ...image, name: packing }]));
  const maps = packings.map((packing) => ({ image: packing, packing }));
  const start = { ...base, images };
  const edit = wireMapSet(start, { label: 'Lay on maps', surface: 'physicalSurface', height: 'displacement', maps, ...plan }, newId);
  return { material: edited(start, edit), edit };
}

const kindsOf = ({ surface }: Material): string[] => Object.values(surface.nodes).map(({ kind }) => kind);

describe('Wiring a set of maps', () => {
  for (const surface of ['physicalSurface', 'blinnPhong'] as const)
    for (const height of ['displacement', 'normals', 'nothing'] as const)
      it(`gives a sound ${surface} with its height for ${height}`, () => {
        const { material } = wired({ surface, height });
        expect(validate(MATERIAL, material)).toEqual([]);
        expect(resolveGraph(material, library()).problems).toEqual([]);
        const { compiled, problems } = compileMaterial(material);
        expect(problems).toEqual([]);
        expect(compiled?.shaped).toBe(height === 'displacement');
        expect(compiled?.opacity).toBe('blend');
        expect(kindsOf(material).filter((kind) => kind === surface).length).toBe(1);
        // Nothing is left of the plain beginning, and no image node runs nowhere.
        expect(kindsOf(material)).not.toContain('lambert');
        const from = new Set(Object.values(material.surface.ribbons).map((ribbon) => ribbon.from));
        const idle = Object.entries(material.surface.nodes).filter(([id]) => !from.has(id));
        expect(idle.map(([, { kind }]) => kind)).toEqual(surface === 'blinnPhong' ? ['image'] : []);
      });

  it('reads green the way the packing says', () => {
    const down = Object.values(wired().material.surface.nodes).find(({ kind }) => kind === 'normalFromMap');
    expect(down?.features).toEqual(['greenDown', 'turned']);
  });

  it('gives several maps one place that repeats, shifts and turns them all, and a single one none', () => {
    const { nodes, ribbons } = wired().material.surface;
    const [place] = Object.entries(nodes).find(([, { kind }]) => kind === 'uvTransform')!;
    const readers = Object.entries(nodes).filter(([, { kind }]) => kind === 'image');
    expect(readers.length).toBe(FULL.length);
    for (const [id] of readers) expect(ribbons[`${id}.uv`]).toEqual({ from: place, outlet: 'uv' });
    const [normals] = Object.entries(nodes).find(([, { kind }]) => kind === 'normalFromMap')!;
    expect(ribbons[`${normals}.turn`]).toEqual({ from: place, outlet: 'turn' });
    expect(kindsOf(wired({}, undefined, ['colour']).material)).not.toContain('uvTransform');
  });

  it('transforms the second UVs for a map that lies on them, and the first for the others', () => {
    const { material } = wired();
    const second = { ...material, images: { ...material.images, occlusion: { ...material.images['occlusion']!, uvSet: 1 as const } } };
    const [text, plain] = [second, material].map((each) => compileFor(GLSL_TARGET, each).compiled!.program.fragment.text);
    expect(text!.match(/transformedUv\(/g)!.length).toBe(plain!.match(/transformedUv\(/g)!.length + 1);
    expect(text).toContain('surfaceSecondUv()');
    expect(plain).not.toContain('surfaceSecondUv()');
  });

  it('uses the surface that is there, and keeps its numbers and other nodes', () => {
    const first = wired({}, undefined, ['colour']).material;
    const ids = Object.keys(first.surface.nodes);
    const [surface] = Object.entries(first.surface.nodes).find(([, { kind }]) => kind === 'physicalSurface')!;
    const again = wired({}, first, ['roughness'], countingFrom(100)).material;
    expect(Object.keys(again.surface.nodes)).toEqual(jasmine.arrayContaining(ids));
    expect(kindsOf(again).filter((kind) => kind === 'physicalSurface').length).toBe(1);
    expect(again.surface.ribbons[`${surface}.roughness`]?.outlet).toBe('red');
    expect(again.surface.ribbons[`${surface}.baseColour`]?.outlet).toBe('colour');
  });

  it('is one step back', () => {
    const start = { ...newMaterial('Jar'), images: { colour: image } };
    const edit = wireMapSet(
      start,
      { label: 'Maps', surface: 'physicalSurface', height: 'nothing', maps: [{ image: 'colour', packing: 'colour' }] },
      countingIds(),
    );
    const back = invertChanges(start, edit.changes);
    expect(applyChanges(applyChanges(start, edit.changes), back)).toEqual(start);
  });
});
