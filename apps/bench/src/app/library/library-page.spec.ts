import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { provideRouter, Router } from '@angular/router';
import { type BrelvinDocument, type DocumentSummary, type Material } from '@brelvin/contract';
import { newMaterial, SHARED_SURROUNDINGS } from '@brelvin/core';
import { Subject } from 'rxjs';
import { AssetApi } from '../shared/api/asset-api';
import { ApiFailure, DocumentApi } from '../shared/api/document-api';
import { LiveChannel } from '../shared/documents/live-channel';
import { LibraryPage } from './library-page';
import { ThumbnailMaker } from './thumbnail-maker';

const entry = (id: string, name: string, pictured: number | null = 0): DocumentSummary => ({
  id,
  kind: 'material',
  name,
  tags: [],
  step: 0,
  updatedAt: '2026-11-20T10:00:00Z',
  pictured,
});

describe('LibraryPage', () => {
  let fixture: ComponentFixture<LibraryPage>;
  let entries: DocumentSummary[];
  let asked: unknown[][];
  let created: BrelvinDocument[];
  let failing: ApiFailure | undefined;
  let drawn: string[];
  let appended: unknown[][];
  let elsewhere: Subject<void>;

  beforeEach(() => {
    entries = [entry('a', 'Lamp chimney'), entry('b', 'Tallow seal', null)];
    asked = [];
    created = [];
    failing = undefined;
    drawn = [];
    appended = [];
    elsewhere = new Subject();
    localStorage.removeItem('brelvin-recent');
    const api: Partial<DocumentApi> = {
      list: async (...query) => {
        asked.push(query);
        if (failing) throw failing;
        return { documents: entries, total: entries.length };
      },
      create: async (id, document) => {
        created.push(document);
        return { id, step: 0, document };
      },
      read: async (id) => ({ id, step: 0, document: newMaterial('Lamp chimney') }),
      remove: async (id) => void (entries = entries.filter((each) => each.id !== id)),
      restore: async () => void (entries = [...entries, entry('a', 'Lamp chimney')]),
      tags: async () => ({ tags: [{ tag: 'puppet', count: 2 }] }),
      append: async (id, after, steps) => {
        appended.push([id, steps[0]?.changes]);
        return { step: after + 1 };
      },
      thumbnailUrl: (id, step) => `data:image/png;base64,${id}${step}`,
    };
    const thumbnails: Partial<ThumbnailMaker> = {
      make: async (id) => {
        drawn.push(id);
        return `data:image/png;base64,drawn${id}`;
      },
      rest: () => undefined,
    };
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideRouter([{ path: '**', children: [] }]),
        { provide: DocumentApi, useValue: api },
        { provide: ThumbnailMaker, useValue: thumbnails },
        { provide: LiveChannel, useValue: { shelves: elsewhere } },
      ],
    });
  });

  async function open(): Promise<HTMLElement> {
    fixture = TestBed.createComponent(LibraryPage);
    const page = fixture.nativeElement as HTMLElement;
    page.style.cssText = 'display: flex; flex-direction: column; width: 1000px; height: 700px';
    return settle();
  }

  async function settle(): Promise<HTMLElement> {
    for (let turn = 0; turn < 6; turn++) {
      await fixture.whenStable();
      // The windowed list measures itself between two pictures.
      await new Promise((resolve) => requestAnimationFrame(resolve));
    }
    return fixture.nativeElement as HTMLElement;
  }

  const names = (page: HTMLElement): string[] => [...page.querySelectorAll('.library-name')].map((each) => each.textContent ?? '');
  const press = async (page: HTMLElement, label: string): Promise<HTMLElement> => {
    const button = [...page.querySelectorAll<HTMLButtonElement>('button')].find((each) =>
      (each.getAttribute('aria-label') ?? each.textContent ?? '').includes(label),
    );
    button!.click();
    return settle();
  };

  it('lists materials with their pictures, and draws those that are missing', async () => {
    const page = await open();
    expect(names(page)).toEqual(['Lamp chimney', 'Tallow seal']);
    expect(drawn).toEqual(['b']);
    expect(page.querySelectorAll('img.library-picture').length).toBe(2);
  });

  it('makes a new material in the shared set and under the shared rig, and opens it', async () => {
    const page = await open();
    const navigate = spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    await press(page, 'New material');
    expect(created.map((document) => document.format)).toEqual(['brelvin-material']);
    expect((created[0] as Material).seenIn).toEqual(SHARED_SURROUNDINGS);
    expect(navigate.calls.mostRecent().args[0]?.[0]).toBe('/bench');
  });

  it('gives it a set and a rig of its own where somebody deleted those', async () => {
    const page = await open();
    spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    spyOn(TestBed.inject(DocumentApi), 'read').and.rejectWith(new ApiFailure(410, 'deleted', 'It was deleted.'));
    await press(page, 'New material');
    expect(created.map((document) => document.name)).toEqual(['Set of New material', 'Light of New material', 'New material']);
  });

  it('gives a new material a name that is free', async () => {
    entries = [entry('a', 'New material'), entry('b', 'New material 2')];
    const page = await open();
    spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    await press(page, 'New material');
    expect(created.at(-1)?.name).toBe('New material 3');
  });

  it('duplicates', async () => {
    const page = await open();
    await press(page, 'Duplicate Lamp chimney');
    expect(created[0]?.name).toBe('Lamp chimney copy');
  });

  it('deletes, and takes it back', async () => {
    let page = await open();
    page = await press(page, 'Delete Lamp chimney');
    expect(names(page)).toEqual(['Tallow seal']);
    expect(page.querySelector('.toast')?.textContent).toContain('is deleted');
    page = await press(page, 'Undo');
    expect(names(page)).toContain('Lamp chimney');
  });

  it('searches once typing pauses', async () => {
    const page = await open();
    const field = page.querySelector<HTMLInputElement>('input[type="search"]')!;
    for (const text of ['s', 'se', 'seal']) {
      field.value = text;
      field.dispatchEvent(new Event('input'));
    }
    await new Promise((resolve) => setTimeout(resolve, 260));
    await settle();
    expect(asked.map((query) => (query[1] as { search?: string }).search)).toEqual([undefined, 'seal']);
  });

  it('says what to do when there is nothing', async () => {
    entries = [];
    expect((await open()).textContent).toContain('No materials yet. Start the first one from:');
  });

  it('says that the server is away, and tries again when asked', async () => {
    failing = new ApiFailure(503, 'database-away', 'The database cannot be reached.');
    let page = await open();
    expect(page.textContent).toContain('The database cannot be reached.');
    failing = undefined;
    page = await press(page, 'Try again');
    expect(names(page).length).toBe(2);
  });

  it('renames in place, and changes tags, as steps like every other', async () => {
    const page = await open();
    expect(page.querySelector<HTMLButtonElement>('.library-name')!.title).toMatch(/^Lamp chimney\n|^Tallow seal\n/);
    page.querySelector<HTMLButtonElement>('.library-name')!.click();
    await settle();
    const name = page.querySelector<HTMLInputElement>('[aria-label="New name of Lamp chimney"]')!;
    name.value = 'Lamp glass';
    name.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter' }));
    await settle();
    page.querySelectorAll<HTMLButtonElement>('.library-tagline')[1]!.click();
    await settle();
    const tags = page.querySelector<HTMLInputElement>('[aria-label="Tags of Tallow seal"]')!;
    tags.value = 'wax, matcap, wax';
    tags.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter' }));
    await settle();
    expect(appended as unknown).toEqual([
      ['a', [{ path: ['name'], value: 'Lamp glass' }]],
      ['b', [{ path: ['tags'], value: ['wax', 'matcap'] }]],
    ]);
  });

  it('opens fields with focus, sends what was typed once, and nothing after Escape', async () => {
    const page = await open();
    page.querySelector<HTMLButtonElement>('.library-name')!.click();
    await settle();
    const name = document.activeElement as HTMLInputElement;
    expect(name.getAttribute('aria-label')).toBe('New name of Lamp chimney');
    expect([name.selectionStart, name.selectionEnd]).toEqual([0, 'Lamp chimney'.length]);
    name.value = 'Lamp glass';
    // Enter takes the field away, which also takes the focus from it.
    name.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter' }));
    name.blur();
    await settle();
    page.querySelector<HTMLButtonElement>('.library-tagline')!.click();
    await settle();
    const tags = document.activeElement as HTMLInputElement;
    expect(tags.getAttribute('aria-label')).toBe('Tags of Lamp chimney');
    tags.value = 'wax';
    tags.dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape' }));
    await settle();
    expect(appended).toEqual([['a', [{ path: ['name'], value: 'Lamp glass' }]]]);
  });

  it('keeps a field under the hand that writes in it while another change is stored and the order changes', async () => {
    let stored = (): void => undefined;
    const api = TestBed.inject(DocumentApi);
    api.append = async (id, after, steps) => {
      appended.push([id, steps[0]?.changes]);
      await new Promise<void>((resolve) => (stored = resolve));
      return { step: after + 1 };
    };
    const page = await open();
    page.querySelectorAll<HTMLButtonElement>('.library-name')[1]!.click();
    await settle();
    const name = document.activeElement as HTMLInputElement;
    name.value = 'Wax seal';
    name.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter' }));
    await settle();
    expect(names(page)).withContext('shown at once').toEqual(['Lamp chimney', 'Wax seal']);
    page.querySelectorAll<HTMLButtonElement>('.library-tagline')[0]!.click();
    await settle();
    const tags = document.activeElement as HTMLInputElement;
    tags.value = 'glass';
    // What was changed last comes first.
    entries = [entry('b', 'Wax seal'), entry('a', 'Lamp chimney')];
    stored();
    await settle();
    expect(document.activeElement).withContext('the field is still there').toBe(tags);
    tags.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter' }));
    await settle();
    stored();
    await settle();
    expect(appended.map(([id]) => id)).toEqual(['b', 'a']);
    expect(names(page)).withContext('everything stays at its place').toEqual(['Lamp chimney', 'Wax seal']);
    elsewhere.next();
    await settle();
    expect(page.querySelector('.library-stale')).withContext('what one changes oneself is not news').toBeNull();
    await press(page, 'Delete Lamp chimney');
    expect(names(page)).toEqual(['Wax seal']);
  });

  it('does not take it for news when a tag is taken off that the shelf was asked for', async () => {
    const page = await open();
    page.querySelectorAll<HTMLButtonElement>('.library-tagline')[0]!.click();
    await settle();
    const tags = document.activeElement as HTMLInputElement;
    tags.value = 'wax';
    entries = [entry('b', 'Tallow seal')];
    tags.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter' }));
    await settle();
    expect(names(page)).withContext('it stays until the shelf is asked anew').toEqual(['Lamp chimney', 'Tallow seal']);
    expect(page.querySelector('.library-stale')).toBeNull();
  });

  it('shows the old name again when the new one could not be stored', async () => {
    const page = await open();
    TestBed.inject(DocumentApi).append = async () => {
      failing = new ApiFailure(503, 'database-away', 'The database is away.');
      throw failing;
    };
    page.querySelector<HTMLButtonElement>('.library-name')!.click();
    await settle();
    const name = document.activeElement as HTMLInputElement;
    name.value = 'Lamp glass';
    name.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter' }));
    await settle();
    expect(names(page)).toEqual(['Lamp chimney', 'Tallow seal']);
    expect(page.textContent).toContain('The database is away.');
  });

  it('goes from shelf to shelf, by tag, in another order, and to what was deleted', async () => {
    const page = await open();
    await press(page, 'Sets');
    await press(page, 'Materials');
    await press(page, 'puppet 2');
    await press(page, 'deleted');
    const sort = page.querySelector('select')!;
    sort.value = 'name';
    sort.dispatchEvent(new Event('change'));
    await settle();
    const last = asked.at(-1) as [string, Record<string, unknown>];
    expect([last[0], last[1]['tag'], last[1]['deleted'], last[1]['sort']]).toEqual(['material', 'puppet', true, 'name']);
    expect(asked.some((query) => query[0] === 'set')).toBeTrue();
    expect(page.querySelector('[aria-label="Restore Lamp chimney"]')).not.toBeNull();
  });

  it('has images on a shelf like all others: named, tagged, deleted and restored', async () => {
    const image = { sha256: 'ab'.repeat(32), type: 'image/png', size: 5000, width: 128, height: 64, updatedAt: '2026-11-20T10:00:00Z' };
    const changes: object[] = [];
    const assets = TestBed.inject(AssetApi);
    assets.list = async ({ search } = {}) => {
      asked.push(['image', { search }]);
      return { assets: [{ ...image, name: 'Tern', tags: ['bird'] }], total: 1 };
    };
    assets.tags = async () => ({ tags: [{ tag: 'bird', count: 1 }] });
    assets.change = async (_sha256, change) => {
      changes.push(change);
      return { ...image, name: 'Tern', tags: [] };
    };
    assets.url = () => 'data:image/gif;base64,R0lGODlhAQABAAAAACwAAAAAAQABAAA=';
    let page = await open();
    page = await press(page, 'Images');
    expect(names(page)).toEqual(['Tern']);
    expect(page.querySelector('.library-card')?.textContent).toContain('128 × 64, 5 KiB');
    expect(page.querySelector('[aria-label="Duplicate Tern"]')).toBeNull();
    page.querySelector<HTMLButtonElement>('.library-name')!.click();
    await settle();
    const name = page.querySelector<HTMLInputElement>('[aria-label="New name of Tern"]')!;
    name.value = 'Gull';
    name.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter' }));
    await settle();
    await press(page, 'Delete Tern');
    await press(page, 'Undo');
    expect(changes).toEqual([{ name: 'Gull' }, { deleted: true }, { deleted: false }]);
  });

  it('says that another window was at the shelf, and moves nothing until it is asked to', async () => {
    const page = await open();
    const chip = (): string => page.querySelector('.library-stale')?.textContent?.trim() ?? '';
    elsewhere.next();
    await settle();
    expect(chip()).withContext('nothing has changed').toBe('');
    entries = [entry('b', 'Tallow seal')];
    elsewhere.next();
    await settle();
    expect(names(page)).toEqual(['Lamp chimney', 'Tallow seal']);
    expect(chip()).toContain('changed elsewhere');
    await press(page, 'show anew');
    expect(names(page)).toEqual(['Tallow seal']);
    expect(chip()).toBe('');
    entries = [entry('b', 'Tallow seal, red')];
    elsewhere.next();
    await settle();
    expect(chip()).toContain('changed elsewhere');
    entries = [entry('b', 'Tallow seal')];
    elsewhere.next();
    await settle();
    expect(chip()).withContext('named as before').toBe('');
  });

  it('keeps only the rows in view in the page, and reads pages as they are needed', async () => {
    const all = Array.from({ length: 10_000 }, (_, index) => entry(`m${index}`, `Material ${index}`, 0));
    entries = all;
    const api = TestBed.inject(DocumentApi);
    api.list = async (kind, options = {}) => {
      asked.push([kind, options]);
      const { offset = 0, limit = 60 } = options;
      return { documents: all.slice(offset, offset + limit), total: all.length };
    };
    const page = await open();
    expect(page.querySelectorAll('.library-card').length).toBeLessThan(60);
    const viewport = page.querySelector('cdk-virtual-scroll-viewport')!;
    viewport.scrollTop = viewport.scrollHeight / 2;
    viewport.dispatchEvent(new Event('scroll'));
    await settle();
    await settle();
    expect(names(page).some((name) => Number(name.replace('Material ', '')) > 4000)).toBeTrue();
    expect(asked.length).toBeLessThan(6);
  });
});
