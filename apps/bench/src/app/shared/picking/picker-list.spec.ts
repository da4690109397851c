import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { PickerList } from './picker-list';
import type { PickerEntry, PickerQuery } from './picker-source';

const TOTAL = 10_000;

describe('PickerList', () => {
  let fixture: ComponentFixture<PickerList>;
  let asked: PickerQuery[];
  let picked: PickerEntry[];
  let away: boolean;

  /** Ten thousand entries, each tenth of one name; searched by it. */
  async function page(query: PickerQuery) {
    asked.push(query);
    if (away) throw new Error('away');
    const all = Array.from({ length: TOTAL }, (_, index) => index).filter((index) => !query.search || index % 10 === 0);
    const entries = all.slice(query.offset, query.offset + query.limit).map((index) => ({ id: `m${index}`, name: `Keel ${index}` }));
    return { entries, total: all.length };
  }

  beforeEach(async () => {
    [asked, picked, away] = [[], [], false];
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    fixture = TestBed.createComponent(PickerList);
    fixture.componentRef.setInput('source', {
      words: ['material', 'materials'],
      page,
      tags: async () => [{ tag: 'boat', count: 3 }],
    });
    fixture.componentRef.setInput('extra', [{ id: '', name: 'the material on the Bench' }]);
    fixture.componentInstance.chosen.subscribe((entry) => picked.push(entry));
    document.body.append(fixture.nativeElement as Node);
    await settle();
  });

  afterEach(() => (fixture.nativeElement as HTMLElement).remove());

  const root = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const field = (): HTMLInputElement => root().querySelector('input')!;
  const names = (): string[] => [...root().querySelectorAll('.picker-name')].map((each) => each.textContent?.trim() ?? '');
  const chosen = (): string => root().querySelector('.picker-entry.chosen')?.textContent?.trim() ?? '';
  const said = (): string => root().querySelector('[role="status"], [role="alert"]')?.textContent?.trim() ?? '';
  async function settle(): Promise<void> {
    for (let turn = 0; turn < 3; turn++) {
      await new Promise((resolve) => setTimeout(resolve, 30));
      await fixture.whenStable();
    }
  }
  async function press(...keys: string[]): Promise<void> {
    for (const key of keys) field().dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
    await settle();
  }

  it('shows of ten thousand those in view, says how many there are, and has read one page', () => {
    expect(said()).toBe('10,000 materials');
    expect(names().slice(0, 3)).toEqual(['the material on the Bench', 'Keel 0', 'Keel 1']);
    expect(names().length).toBeLessThan(40);
    expect(asked.length).toBe(1);
  });

  it('goes through them by keys, brings them into view and reads their pages then', async () => {
    await press(...Array.from({ length: 12 }, () => 'PageDown'));
    await settle();
    expect(chosen()).toContain('Keel 83');
    expect(asked.map(({ offset }) => offset)).toEqual([0, 60]);
    await press('ArrowUp', 'Enter');
    expect(picked.map(({ id }) => id)).toEqual(['m82']);
  });

  it('picks what stands before all others, until something is searched', async () => {
    await press('Enter');
    expect(picked.map(({ id }) => id)).toEqual(['']);
    field().value = 'keel';
    field().dispatchEvent(new Event('input'));
    await new Promise((resolve) => setTimeout(resolve, 200));
    await settle();
    expect([said(), names()[0]]).toEqual(['1,000 materials', 'Keel 0']);
    expect(asked.at(-1)?.search).toBe('keel');
    await press('Enter');
    expect(picked.at(-1)?.id).toBe('m0');
  });

  it('takes what was typed when Enter follows at once, not what stood there before', async () => {
    field().value = 'keel';
    field().dispatchEvent(new Event('input'));
    field().dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true, cancelable: true }));
    expect(picked).toEqual([]);
    await settle();
    expect(picked.map(({ id }) => id)).toEqual(['m0']);
    await new Promise((resolve) => setTimeout(resolve, 200));
    expect(asked.filter(({ search }) => search === 'keel').length).toBe(1);
  });

  it('narrows by a tag, and back', async () => {
    const tag = root().querySelector<HTMLButtonElement>('.picker-tags button')!;
    tag.click();
    await settle();
    expect([asked.at(-1)?.tag, tag.getAttribute('aria-pressed')]).toEqual(['boat', 'true']);
    tag.click();
    await settle();
    expect(asked.at(-1)?.tag).toBeUndefined();
  });

  it('says when they cannot be read, and tries again', async () => {
    away = true;
    field().value = 'x';
    field().dispatchEvent(new Event('input'));
    await new Promise((resolve) => setTimeout(resolve, 200));
    await settle();
    expect(said()).toContain('The materials cannot be read at the moment.');
    away = false;
    root().querySelector<HTMLButtonElement>('[role="alert"] button')!.click();
    await settle();
    expect(said()).toBe('1,000 materials');
  });
});
