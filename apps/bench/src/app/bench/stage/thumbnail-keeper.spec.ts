import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { Subject } from 'rxjs';
import { DocumentApi } from '../../shared/api/document-api';
import { Workbench } from '../../shared/documents/workbench';
import { StageBinding } from './stage-binding';
import { NO_PICTURE_YET } from './stage-state';
import { ThumbnailKeeper } from './thumbnail-keeper';

const A_WHILE = 6100;

describe('The keeper of the Library’s pictures', () => {
  const png = new Blob(['picture']);
  let saved: Subject<{ id: string; step: number }>;
  let picture: Blob | undefined;
  let kept: (readonly [string, number, Blob])[];
  let drawn: boolean[];
  let keeper: ThumbnailKeeper;
  const state = signal(NO_PICTURE_YET);

  beforeEach(() => {
    jasmine.clock().install();
    jasmine.clock().mockDate();
    saved = new Subject();
    picture = png;
    [kept, drawn] = [[], []];
    state.set(NO_PICTURE_YET);
    const link: Partial<Record<keyof StageBinding, unknown>> = {
      engine: () => ({ thumbnail: async (whole: boolean) => (drawn.push(whole), picture) }),
      state,
    };
    const api: Partial<DocumentApi> = { saveThumbnail: async (...picture) => void kept.push(picture) };
    TestBed.configureTestingModule({
      providers: [
        ThumbnailKeeper,
        { provide: DocumentApi, useValue: api },
        { provide: Workbench, useValue: { saved } },
        { provide: StageBinding, useValue: link },
      ],
    });
    keeper = TestBed.inject(ThumbnailKeeper);
    keeper.follow({ material: 'm', set: 's', rig: 'r' });
    TestBed.tick();
  });

  afterEach(() => jasmine.clock().uninstall());

  /** Lets a while go by, and what was begun in it end. */
  async function later(): Promise<void> {
    TestBed.tick();
    jasmine.clock().tick(A_WHILE);
    for (let turn = 0; turn < 5; turn++) await Promise.resolve();
  }

  it('keeps one a while after the last save, of its step', async () => {
    saved.next({ id: 'm', step: 3 });
    saved.next({ id: 'm', step: 4 });
    expect(kept).toEqual([]);
    await later();
    expect(kept).toEqual([['m', 4, png]]);
  });

  it('takes another after its light rig was saved, none for other documents', async () => {
    saved.next({ id: 'other', step: 1 });
    await later();
    expect(kept).toEqual([]);
    saved.next({ id: 'm', step: 1 });
    await later();
    saved.next({ id: 'r', step: 9 });
    await later();
    expect(kept.map(([id, step]) => `${id} ${step}`)).toEqual(['m 1', 'm 1', 'r 9']);
  });

  it('keeps one of the set, of all that stands in it, when that was saved', async () => {
    saved.next({ id: 's', step: 7 });
    await later();
    expect(kept).toEqual([['s', 7, png]]);
    expect(drawn).toEqual([true]);
    await later();
    expect(drawn.length).withContext('once').toBe(1);
  });

  it('waits until all that is shown is here, and then takes it once', async () => {
    picture = undefined;
    saved.next({ id: 'm', step: 2 });
    await later();
    expect(kept).toEqual([]);
    picture = png;
    state.set({ ...NO_PICTURE_YET, complete: true });
    await later();
    expect(kept).toEqual([['m', 2, png]]);
    state.set(NO_PICTURE_YET);
    await later();
    state.set({ ...NO_PICTURE_YET, complete: true });
    await later();
    expect(kept.length).toBe(1);
  });

  it('takes what is wanted at once when the page is left', async () => {
    saved.next({ id: 'm', step: 5 });
    await keeper.flush();
    expect(kept).toEqual([['m', 5, png]]);
  });
});
