import { TestBed } from '@angular/core/testing';
import { OFFERED_SHAPES } from '@brelvin/core';
import { AssetApi } from '../api/asset-api';
import { MeshSource, pickedMesh } from './mesh-source';

describe('Meshes to be picked from', () => {
  const FILES = 130;
  let source: MeshSource;
  let asked: { readonly offset?: number; readonly limit?: number; readonly search?: string }[];

  beforeEach(() => {
    asked = [];
    const list: AssetApi['list'] = async (query = {}) => {
      asked.push(query);
      const all = Array.from({ length: FILES }, (_, index) => index).slice(query.offset ?? 0, (query.offset ?? 0) + (query.limit ?? 60));
      const assets = all.map((index) => ({
        sha256: `${index}`.padStart(64, '0'),
        name: `crate ${index}.glb`,
        type: 'model/vnd.brelvin-mesh',
        size: 1,
        width: 0,
        height: 0,
        tags: [],
        updatedAt: '2026-01-01T00:00:00.000Z',
      }));
      return { assets, total: FILES };
    };
    TestBed.configureTestingModule({ providers: [{ provide: AssetApi, useValue: { list } }] });
    source = TestBed.inject(MeshSource);
  });

  it('are those that are made here, then all files, page after page, none twice and none left out', async () => {
    const ids: string[] = [];
    for (let offset = 0; ; offset += 60) {
      const { entries, total } = await source.page({ search: '', offset, limit: 60 });
      expect(total).toBe(OFFERED_SHAPES.length + FILES);
      if (entries.length === 0) break;
      ids.push(...entries.map(({ id }) => id));
    }
    expect(ids.length).toBe(OFFERED_SHAPES.length + FILES);
    expect(new Set(ids).size).toBe(ids.length);
    expect(pickedMesh({ id: ids[0]! })).toEqual({ shape: OFFERED_SHAPES[0]! });
    expect(pickedMesh({ id: ids.at(-1)! })).toEqual({ asset: `${FILES - 1}`.padStart(64, '0') });
  });

  it('are searched by the names that they have here, and by those of files', async () => {
    const { entries } = await source.page({ search: 'KNOT', offset: 0, limit: 60 });
    expect(entries[0]?.name).toBe('Torus knot');
    expect(entries[1]?.name).toBe('crate 0.glb');
    expect(asked.at(-1)?.search).toBe('KNOT');
    expect(pickedMesh({ id: 'nothing' })).toBeUndefined();
  });
});
