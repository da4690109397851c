import { TestBed } from '@angular/core/testing';
import { newMaterial } from '@brelvin/core';
import { DocumentApi } from '../shared/api/document-api';
import { EnvironmentShelf } from '../shared/images/environment-shelf';
import { ImageShelf } from '../shared/images/image-shelf';
import { MeshShelf } from '../shared/meshes/mesh-shelf';
import { ThumbnailMaker } from './thumbnail-maker';

describe('The maker of pictures for the Library', () => {
  let saved: (readonly [string, number, Blob])[];
  let maker: ThumbnailMaker;

  beforeEach(() => {
    saved = [];
    const api = {
      functions: async () => ({ functions: [] }),
      read: async (id: string) => ({ document: newMaterial(id) }),
      saveThumbnail: async (...picture: readonly [string, number, Blob]) => void saved.push(picture),
      thumbnailUrl: (id: string, step: number) => `${id} ${step}`,
    };
    TestBed.configureTestingModule({
      providers: [
        { provide: DocumentApi, useValue: api },
        { provide: ImageShelf, useValue: {} },
        { provide: EnvironmentShelf, useValue: {} },
        { provide: MeshShelf, useValue: {} },
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

  it('keeps nothing of what was on its way when it goes to rest, and draws again when it is asked again', async () => {
    await maker.make('a', 1);
    const late = [maker.make('b', 1), maker.make('c', 1)];
    await new Promise((resolve) => setTimeout(resolve, 5));
    maker.rest();
    expect(await Promise.all(late)).toEqual([undefined, undefined]);
    expect(saved.map(([id]) => id)).toEqual(['a']);
    expect(await maker.make('b', 2)).toBe('b 2');
  });
});
