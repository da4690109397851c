import type { MaterialImage, StageSet } from '@brelvin/contract';
import { assetsOf, seenWith, withOtherIds } from './belongings';
import { newMaterial, newMesh, newRig, newSet } from './new-documents';

const image = (asset: string, faces?: string[]): MaterialImage => ({
  name: `image ${asset}`,
  asset,
  width: 4,
  height: 4,
  role: 'colour',
  wrapX: 'repeat',
  wrapY: 'repeat',
  filter: 'smooth',
  uvSet: 0,
  faces,
});

const source = {
  asset: 'm',
  file: 'kite.glb',
  parts: ['sail'],
  triangles: 1,
  made: [],
  gap: 1,
  mirrored: false,
  bounds: { low: [], high: [] },
};
const set: StageSet = {
  ...newSet('On the quay'),
  meshes: { kite: newMesh('imported', {}, { source }), ball: newMesh('sphere') },
  partRules: {
    a: { order: 0, pattern: 'sail', material: 'silk', values: {} },
    b: { order: 1, pattern: '*', values: {} },
  },
};

describe('What belongs to a document', () => {
  it('are the files that it shows, each once', () => {
    const material = { ...newMaterial('m'), images: { a: image('x'), b: image('x'), c: image('f1', ['f1', 'f2']) } };
    expect(assetsOf(material).map(({ sha256 }) => sha256)).toEqual(['x', 'f1', 'f2']);
    expect(assetsOf(set)).toEqual([{ sha256: 'm', name: 'kite.glb' }]);
    const environment = { name: 'Dusk', assets: ['e'], turn: 0, intensity: 1, lights: true, shows: true, blur: 0 };
    const rig = { ...newRig('r'), environment, backgroundImage: { image: image('b'), fit: 'cover' as const } };
    expect(assetsOf(rig)).toEqual([
      { sha256: 'e', name: 'Dusk' },
      { sha256: 'b', name: 'image b' },
    ]);
    expect(assetsOf(newRig('r'))).toEqual([]);
  });

  it('are the documents that are seen with it', () => {
    expect(seenWith(newMaterial('m', { set: 's', rig: 'r' }))).toEqual(['s', 'r']);
    expect(seenWith(newMaterial('m'))).toEqual([]);
    expect(seenWith(set)).toEqual(['silk']);
    expect(seenWith(newRig('r'))).toEqual([]);
  });

  it('go by other ids where they are given some', () => {
    const ids = new Map([
      ['s', 's2'],
      ['silk', 'silk2'],
    ]);
    expect(seenWith(withOtherIds(newMaterial('m', { set: 's', rig: 'r' }), ids))).toEqual(['s2', 'r']);
    expect(seenWith(withOtherIds(set, ids))).toEqual(['silk2']);
    const rig = newRig('r');
    expect(withOtherIds(rig, ids)).toBe(rig);
  });

  it('are the fields that stand in a set, which go by other ids with it', () => {
    const hall: StageSet = { ...set, meshes: { ...set.meshes, hall: newMesh('field', {}, { field: 'f' }) } };
    expect(seenWith(hall)).toEqual(['f', 'silk']);
    const other = withOtherIds(hall, new Map([['f', 'g']])) as StageSet;
    expect([other.meshes['hall']?.field, other.meshes['kite']?.field]).toEqual(['g', undefined]);
  });
});
