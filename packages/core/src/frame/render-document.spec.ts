import type { Material, StageSet } from '@brelvin/contract';
import { newMaterial, newMesh, newRig, newSet } from '../document/new-documents';
import { mipChain } from '../image/mips';
import { buildMesh } from '../mesh/build-mesh';
import { RecordingDevice } from '../testing/recording-device';
import { openStudio, renderDocument, type AssetReader, type SeenDocuments, type Studio } from './render-document';

const size = { width: 32, height: 24 };
const NOTHING: AssetReader = { image: async () => undefined, environment: async () => undefined, mesh: async () => undefined };
const image = {
  name: 'label.png',
  asset: 'a'.repeat(64),
  width: 2,
  height: 2,
  role: 'colour',
  wrapX: 'repeat',
  wrapY: 'repeat',
  filter: 'smooth',
  uvSet: 0,
} as const;

describe('renderDocument', () => {
  let device: RecordingDevice;
  let studio: Studio;

  beforeEach(async () => {
    device = new RecordingDevice();
    studio = openStudio(device);
  });

  const documents = (change: Partial<SeenDocuments> = {}): SeenDocuments => ({
    bench: 'mine',
    materials: new Map([['mine', newMaterial('Mine')]]),
    set: newSet('Ball'),
    rig: newRig('Day'),
    ...change,
  });
  const withImage = (): Material => ({ ...newMaterial('Label'), images: { label: image } });

  it('draws what stands in the set, under its light, at the size that is asked for', async () => {
    const { pixels, lacks } = await renderDocument(studio, documents(), NOTHING, { size });
    expect([pixels !== undefined, lacks]).toEqual([true, []]);
    const { colour } = device.passes.at(-1) ?? {};
    expect(colour).toEqual(jasmine.objectContaining(size));
  });

  it('keeps programs from one picture to the next, and nothing else', async () => {
    await renderDocument(studio, documents(), NOTHING, { size });
    const [programs, alive] = [device.programs.length, device.alive];
    await renderDocument(studio, documents({ rig: { ...newRig('Dusk'), exposure: 1 } }), NOTHING, { size });
    expect(device.programs.length).toBe(programs);
    expect(device.alive).toBe(alive);
  });

  it('says what a picture lacks, and draws it without', async () => {
    const set: StageSet = {
      ...newSet('Two'),
      meshes: {
        ball: newMesh('sphere', {}, { order: 0 }),
        wave: { ...newMesh('height', {}, { order: 1 }), name: 'Wave', formula: 'float height(float x, float z) { return y; }' },
      },
    };
    const rig = {
      ...newRig('Around'),
      environment: { name: 'Quay', assets: ['b'.repeat(64)], turn: 0, intensity: 1, lights: true, shows: true, blur: 0 },
    };
    const broken = { ...newMaterial('Broken'), code: { text: 'vec4 paint(Surface s) { return nothing; }' } };
    const materials = new Map([
      ['mine', withImage()],
      ['other', broken],
    ]);
    const { pixels, lacks } = await renderDocument(studio, documents({ materials, set, rig }), NOTHING, { size });
    expect(pixels).toBeDefined();
    expect(lacks.map(({ what, name }) => `${what} ${name}`)).toEqual([
      'mesh Wave',
      'image label.png',
      'material Broken',
      'environment Quay',
    ]);
    for (const { reason } of lacks) expect(reason.length).toBeGreaterThan(10);
  });

  it('has images and meshes of files here before it draws', async () => {
    const asked: string[] = [];
    const assets: AssetReader = {
      ...NOTHING,
      image: async ({ name }) => {
        asked.push(name);
        return mipChain({ width: 2, height: 2, data: new Uint8Array(16).fill(200) }, 'colour');
      },
      mesh: async (asset) => {
        asked.push(asset.slice(0, 2));
        return buildMesh({ shape: 'cube', numbers: {}, smooth: false });
      },
    };
    const source = { asset: 'cc'.repeat(32), file: 'crate.glb', parts: ['crate'], triangles: 12, made: [], gap: 0.1, mirrored: false };
    const bounds = { low: [-1, -1, -1], high: [1, 1, 1] };
    const set: StageSet = {
      ...newSet('Crate'),
      meshes: { crate: { ...newMesh('cube', {}, { order: 0 }), shape: 'imported', source: { ...source, bounds } } },
    };
    const found = await renderDocument(studio, documents({ set, materials: new Map([['mine', withImage()]]) }), assets, { size });
    expect([found.pixels !== undefined, found.lacks, asked]).toEqual([true, [], ['cc', 'label.png']]);
  });

  it('gives no picture of nothing, of a material that does not compile, or of what is not wanted any more', async () => {
    const empty = await renderDocument(studio, documents({ set: { ...newSet('Empty'), meshes: {} } }), NOTHING, { size });
    const broken = { ...newMaterial('Broken'), code: { text: 'vec4 paint(Surface s) { return nothing; }' } };
    const refused = await renderDocument(studio, documents({ materials: new Map([['mine', broken]]) }), NOTHING, { size });
    const passes = device.passes.length;
    const unwanted = await renderDocument(studio, documents(), NOTHING, { size, wanted: () => false });
    expect([empty.pixels, refused.pixels, unwanted.pixels]).toEqual([undefined, undefined, undefined]);
    expect(refused.lacks.map(({ name }) => name)).toEqual(['Broken']);
    expect(device.passes.length).withContext('nothing was drawn').toBe(passes);
  });
});
