import { TestBed } from '@angular/core/testing';
import type { Transaction } from '@brelvin/contract';
import { Notices } from '../notices/notices';
import { EditJournal } from './edit-journal';

const step = (id: string, value: string): Transaction => ({ id, label: id, changes: [{ path: ['name'], value }] });

describe('EditJournal', () => {
  /** Each as of a window of its own. */
  const journal = (): EditJournal => TestBed.runInInjectionContext(() => new EditJournal());
  const ids = async (from: EditJournal, document?: string): Promise<string[]> => (await from.left(document)).map(({ id }) => id);

  /** The browser's database is one for all specs. */
  async function empty(): Promise<void> {
    const all = journal();
    all.drop(await ids(all));
    await all.written();
  }

  beforeEach(empty);
  afterEach(empty);

  it('keeps edits until they are dropped, in the order they were made, with their last content', async () => {
    const [made, later] = [journal(), journal()];
    made.keep('m', 'Lantern', [step('z', 'one'), step('a', 'two')]);
    made.keep('other', 'Quay', [step('q', '')]);
    made.keep('m', 'Lantern', [step('a', 'two, and more')]);
    made.drop(['q']);
    await made.leave('m');
    const left = await later.left('m');
    expect(left.map(({ id, name, transaction }) => `${id} ${name}: ${JSON.stringify(transaction.changes[0]?.value)}`)).toEqual([
      'z Lantern: "one"',
      'a Lantern: "two, and more"',
    ]);
    expect(await ids(later)).toEqual(['z', 'a']);
    later.drop(['z', 'a']);
    expect(await ids(later)).toEqual([]);
  });

  it('leaves those of a window that still is open to that window', async () => {
    const [open, other] = [journal(), journal()];
    open.keep('m', 'Lantern', [step('a', 'A')]);
    await open.written();
    expect(await ids(other, 'm')).toEqual([]);
    await open.leave('m');
    expect(await ids(other, 'm')).toEqual(['a']);
  });

  it('says so where the browser keeps nothing, and lets work go on', async () => {
    spyOn(indexedDB, 'open').and.throwError('storage is off');
    const without = journal();
    without.keep('m', 'Lantern', [step('a', 'A')]);
    expect(await ids(without)).toEqual([]);
    expect(TestBed.inject(Notices).shown()[0]?.words).toContain('storage is off');
  });
});
