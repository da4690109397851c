import { TestBed } from '@angular/core/testing';
import type { BrelvinDocument, Material, StageSet } from '@brelvin/contract';
import { buildMesh, newCodedField, newDistanceField, newMaterial, newMesh, newSet, workOut, type MeshWork } from '@brelvin/core';
import { DocumentApi } from '../shared/api/document-api';
import { EnvironmentShelf } from '../shared/images/environment-shelf';
import { ImageShelf } from '../shared/images/image-shelf';
import { MeshShelf } from '../shared/meshes/mesh-shelf';
import { ThumbnailMaker } from './thumbnail-maker';

describe('The maker of pictures for the Library', () => {
  let saved: (readonly [string, number, Blob])[];
  let maker: ThumbnailMaker;
  /** Materials are plain, unless there is one of that id. */
  const documents = new Map<string, BrelvinDocument>();
  const reef = buildMesh({ shape: 'sphere', numbers: { segments: 128, rings: 64 }, smooth: true });
  let asked: MeshWork[];

  beforeEach(() => {
    saved = [];
    asked = [];
    documents.clear();
    const api = {
      functions: async () => ({ functions: [] }),
      read: async (id: string) => ({ document: documents.get(id) ?? newMaterial(id) }),
      saveThumbnail: async (...picture: readonly [string, number, Blob]) => void saved.push(picture),
      thumbnailUrl: (id: string, step: number) => `${id} ${step}`,
    };
    const meshes: Partial<MeshShelf> = {
      load: async () => reef,
      workOut: async (_asset, work) => {
        asked.push(work);
        // Long after the drawing that asked for it.
        await new Promise((resolve) => setTimeout(resolve, 300));
        return workOut(reef, work);
      },
    };
    TestBed.configureTestingModule({
      providers: [
        { provide: DocumentApi, useValue: api },
        { provide: ImageShelf, useValue: {} },
        { provide: EnvironmentShelf, useValue: {} },
        { provide: MeshShelf, useValue: meshes },
      ],
    });
    maker = TestBed.inject(ThumbnailMaker);
  });

  afterEach(() => maker.rest());

  it('draws one after the other and keeps each, of its step', async () => {
    expect(await Promise.all([maker.make('a', 1), maker.make('b', 2)])).toEqual(['a 1', 'b 2']);
    expect(saved.map(([id, step]) => `${id} ${step}`)).toEqual(['a 1', 'b 2']);
    const { width, height } = await createImageBitmap(saved[0]![2]);
    expect(width).toBe(height);
  });

  it('has what a shaped surface wants of a large mesh worked out apart from the page, and draws with it', async () => {
    documents.set('reef', setOf('e'.repeat(64)));
    documents.set('swollen', swollen());
    expect(reef.indices.length / 3).toBeGreaterThan(10_000);
    await maker.make('swollen', 1);
    expect([...asked].sort()).toEqual(['shape', 'welded']);
    // The same as where it was known at once.
    documents.set('plain', { ...swollen(), seenIn: {} });
    await maker.make('plain', 1);
    expect(saved.length).toBe(2);
    const [large, small] = await Promise.all(saved.map(([, , png]) => meanOf(png)));
    expect(Math.abs(large! - small!))
      .withContext('mean of the pictures')
      .toBeLessThan(3);
  });

  it('draws fields alone, and materials in sets with theirs', async () => {
    const half = 'float field(vec3 p) { return boxField(p, vec3(1.9, 0.4, 1.9), 0.0); }';
    documents.set('slab', newCodedField('slab', half));
    documents.set('float', newDistanceField('float'));
    await maker.make('slab', 1);
    await maker.make('float', 1);
    const [slab, float] = await Promise.all(saved.map(([, , png]) => pixelsOf(png)));
    const other = slab!.filter((value, at) => at % 4 === 0 && Math.abs(value - float![at]!) > 16).length;
    expect(other / (slab!.length / 4)).toBeGreaterThan(0.03);
    documents.set('hall', { ...newSet('hall'), meshes: { f: newMesh('field', {}, { field: 'slab' }) } });
    documents.set('in', newMaterial('in', { set: 'hall' }));
    await maker.make('in', 1);
    expect(saved.length).toBe(3);
    // Without its field there is nothing to be seen.
    documents.delete('slab');
    documents.set('gone', { ...newSet('gone'), meshes: { f: newMesh('field', {}, { field: 'slab' }) } });
    documents.set('without', newMaterial('without', { set: 'gone' }));
    expect(await maker.make('without', 1)).toBeUndefined();
  });

  it('keeps nothing of what was on its way when it goes to rest, and draws again when it is asked again', async () => {
    await maker.make('a', 1);
    const late = [maker.make('b', 1), maker.make('c', 1)];
    await new Promise((resolve) => setTimeout(resolve, 5));
    maker.rest();
    expect(await Promise.all(late)).toEqual([undefined, undefined]);
    expect(saved.map(([id]) => id)).toEqual(['a']);
    expect(await maker.make('b', 2)).toBe('b 2');
  });

  function setOf(asset: string): StageSet {
    const set = newSet('Reef');
    const mesh = set.meshes['mesh']!;
    const source = { asset, file: 'reef.glb', parts: ['sphere'], triangles: 16_000, made: [], gap: 0.01, mirrored: false };
    const bounds = { low: [-1, -1, -1], high: [1, 1, 1] };
    return { ...set, meshes: { mesh: { ...mesh, shape: 'imported', source: { ...source, bounds } } } };
  }

  /** Its vertices go outwards. */
  function swollen(): Material {
    const material = newMaterial('Swollen', { set: 'reef' });
    const { nodes, ribbons } = material.surface;
    return {
      ...material,
      surface: {
        ...material.surface,
        nodes: { ...nodes, out: { kind: 'offsetAlongNormal', rev: 1, x: 0, y: 0, values: { amount: 0.1 } } },
        ribbons: { ...ribbons, 'dock.offset': { from: 'out', outlet: 'result' } },
      },
    };
  }

  async function pixelsOf(png: Blob): Promise<Uint8ClampedArray> {
    const { width, height } = await createImageBitmap(png);
    const context = new OffscreenCanvas(width, height).getContext('2d')!;
    context.drawImage(await createImageBitmap(png), 0, 0);
    return context.getImageData(0, 0, width, height).data;
  }

  async function meanOf(png: Blob): Promise<number> {
    const data = await pixelsOf(png);
    return data.reduce((sum, value, at) => (at % 4 === 0 ? sum + value : sum), 0) / (data.length / 4);
  }
});
