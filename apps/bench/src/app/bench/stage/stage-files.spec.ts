import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { EnvironmentShelf } from '../../shared/images/environment-shelf';
import { ImageShelf, type ImageJob } from '../../shared/images/image-shelf';
import { MeshShelf } from '../../shared/meshes/mesh-shelf';
import { MapSetEditor } from '../maps/map-set-editor';
import { StageFiles } from './stage-files';

const job = (name: string, share: number): ImageJob => ({ id: 1, name, doing: 'decoding', share, cancel: () => undefined });

describe('Files that come in', () => {
  const images = signal<readonly ImageJob[]>([]);
  const mesh = signal<ImageJob | undefined>(undefined);
  const reading = signal<{ done: number; of: number } | undefined>(undefined);
  let stopped: number;
  let files: StageFiles;
  const shown = (): unknown[] => files.jobs().map(({ name, doing, share }) => [name, doing, share]);

  beforeEach(() => {
    stopped = 0;
    images.set([]);
    mesh.set(undefined);
    reading.set(undefined);
    TestBed.configureTestingModule({
      providers: [
        StageFiles,
        { provide: ImageShelf, useValue: { jobs: images } },
        { provide: EnvironmentShelf, useValue: {} },
        { provide: MeshShelf, useValue: { job: mesh } },
        { provide: MapSetEditor, useValue: { reading, stop: () => void stopped++ } },
      ],
    });
    files = TestBed.inject(StageFiles);
  });

  it('are told one by one', () => {
    expect(shown()).toEqual([]);
    images.set([job('a.png', 0.1), job('b.png', 0.4)]);
    mesh.set(job('kite.glb', 0.5));
    expect(shown()).toEqual([
      ['a.png', 'decoding', 0.1],
      ['b.png', 'decoding', 0.4],
      ['kite.glb', 'decoding', 0.5],
    ]);
  });

  it('are one where they are a set of maps, which is cancelled as a whole', () => {
    reading.set({ done: 0, of: 4 });
    expect(shown()).toEqual([['4 files', 'reading', 0]]);
    reading.set({ done: 2, of: 4 });
    images.set([job('hull_normal.png', 0.5)]);
    expect(shown()).toEqual([['hull_normal.png, 3 of 4', 'decoding', 0.625]]);
    files.jobs()[0]?.cancel();
    expect(stopped).toBe(1);
  });

  it('show how far they are without a colour', () => {
    const row = document.createElement('div');
    row.className = 'job';
    const bar = document.createElement('progress');
    bar.value = 0.5;
    row.append(bar);
    document.body.append(row);
    const { appearance, backgroundColor } = getComputedStyle(bar);
    row.remove();
    expect(appearance).withContext('its own looks have a colour').toBe('none');
    const [red, green, blue] = backgroundColor.match(/\d+/g) ?? [];
    expect([green, blue]).toEqual([red, red]);
    expect(red).toBeDefined();
  });
});
