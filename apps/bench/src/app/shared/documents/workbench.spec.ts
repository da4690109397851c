import { TestBed } from '@angular/core/testing';
import { type BrelvinDocument, type LightRig, type Material, type HistoryPart } from '@brelvin/contract';
import { newMaterial, newRig, rename } from '@brelvin/core';
import { firstValueFrom } from 'rxjs';
import { ApiFailure, DocumentApi } from '../api/document-api';
import { Notices } from '../notices/notices';
import { EditJournal } from './edit-journal';
import { Workbench, type DocumentChange } from './workbench';

describe('Workbench', () => {
  let workbench: Workbench;
  let changes: DocumentChange[];
  /** Steps that the server has of every document. */
  let past: HistoryPart['steps'];
  const stored: Record<string, BrelvinDocument> = { m: newMaterial('Start'), r: newRig('Rig') };

  beforeEach(async () => {
    past = [];
    const api = {
      read: async (id: string) => {
        const document = stored[id];
        if (!document) throw new ApiFailure(404, 'missing', `There is no document ${id}.`);
        return { id, step: 0, document };
      },
      history: async () => ({ base: newMaterial('Start'), baseStep: 0, steps: past }),
      append: async (_id: string, after: number, steps: unknown[]) => ({ step: after + steps.length }),
    };
    TestBed.configureTestingModule({ providers: [Workbench, { provide: DocumentApi, useValue: api }] });
    workbench = TestBed.inject(Workbench);
    changes = [];
    workbench.changes.subscribe((change) => changes.push(change));
    await workbench.load('m');
    await workbench.load('r');
  });

  afterEach(() => workbench.closeAll());

  const name = (): string => (workbench.document('m') as Material).name;
  const exposure = (): number => (workbench.document('r') as LightRig).exposure;

  it('opens, tells, and edits', () => {
    expect(changes.map((change) => [change.id, change.changes])).toEqual([
      ['m', undefined],
      ['r', undefined],
    ]);
    workbench.edit('m', rename('Two'));
    expect(name()).toBe('Two');
    expect(changes.at(-1)?.changes as object).toEqual([{ path: ['name'], value: 'Two' }]);
  });

  it('keeps out of documents what no file can keep, and says so', () => {
    const said: string[] = [];
    workbench.messages.subscribe((words) => said.push(words));
    workbench.edit('m', rename('Lan\0tern \udfee🏮'));
    expect(name()).toBe('Lantern 🏮');
    expect(said).toEqual([jasmine.stringContaining('taken out')]);
    workbench.edit('m', rename('Kite'));
    expect(said.length).toBe(1);
  });

  it('offers edits of an earlier visit: put in again they are steps to undo, less what does not fit any more', async () => {
    const journal = TestBed.inject(EditJournal);
    const notices = TestBed.inject(Notices);
    // The browser's database is one for all specs.
    journal.drop((await journal.left('m')).map(({ id }) => id));
    const edit = (id: string, path: string[], value: string) => ({ id, label: id, changes: [{ path, value }] });
    workbench.close('m');
    await journal.written();
    journal.keep('m', 'Start', [
      edit('Rename', ['name'], 'Dusk'),
      edit('Gone', ['surface', 'nodes', 'nobody', 'x'], '1'),
      // The answer to this one got lost.
      edit('stored', ['name'], 'Stored'),
    ]);
    await journal.leave('m');
    past = [{ id: 'stored', step: 0, label: 'Rename', changes: [], at: '2026-11-20T10:00:00Z' }];
    await workbench.load('m');
    for (let turn = 0; turn < 100 && notices.shown().length === 0; turn++) await new Promise((resolve) => setTimeout(resolve, 10));
    const [notice] = notices.shown();
    expect(notice?.words).toMatch(/^2 edits of “Start” were never saved \(.*: Rename, Gone\)\.$/);
    expect(name()).withContext('nothing is done unasked').toBe('Start');
    const putIn = notice?.actions.find(({ words }) => words === 'Put in again');
    workbench.close('m');
    putIn?.run();
    expect((await journal.left('m')).length)
      .withContext('pressed too late, nothing is lost')
      .toBe(2);
    await workbench.load('m');
    const said: string[] = [];
    workbench.messages.subscribe((words) => said.push(words));
    notice?.actions.find(({ words }) => words === 'Put in again')?.run();
    expect(name()).toBe('Dusk');
    expect(said).toEqual(['These edits do not fit “Start” any more: “Gone”.']);
    expect((await journal.left('m')).length).toBe(0);
    workbench.undo();
    expect(name()).toBe('Start');
  });

  it('undoes by time over all documents', () => {
    workbench.edit('m', rename('Two'));
    workbench.edit('r', { label: 'Exposure', changes: [{ path: ['exposure'], value: 2 }] });
    workbench.edit('m', rename('Three'));
    workbench.undo();
    expect([name(), exposure()]).toEqual(['Two', 2]);
    workbench.undo();
    expect([name(), exposure()]).toEqual(['Two', 0]);
    workbench.undo();
    workbench.undo();
    expect(name()).toBe('Start');
    workbench.redo();
    workbench.redo();
    expect([name(), exposure()]).toEqual(['Two', 2]);
  });

  it('counts a drag as one step', () => {
    for (let value = 1; value <= 30; value++)
      workbench.edit('r', { label: 'Exposure', changes: [{ path: ['exposure'], value: value / 10 }] }, 'drag');
    workbench.undo();
    expect(exposure()).toBe(0);
  });

  it('counts what one gesture did to several documents as one step', () => {
    workbench.edit('m', rename('Two'));
    workbench.edit('r', { label: 'Restore', changes: [{ path: ['exposure'], value: 2 }] }, 'restoring');
    workbench.edit('m', rename('Three'), 'restoring');
    workbench.undo();
    expect([name(), exposure()]).toEqual(['Two', 0]);
    workbench.redo();
    expect([name(), exposure()]).toEqual(['Three', 2]);
  });

  it('leaves no trace of edits that change nothing', async () => {
    workbench.edit('m', rename('Start'));
    workbench.edit('m', { label: 'Nothing', changes: [] });
    workbench.edit('nobody', rename('x'));
    expect((await firstValueFrom(workbench.history)).done).toEqual([]);
    expect(workbench.unsaved).toBe(0);
  });

  it('forgets the steps of a document that leaves', async () => {
    workbench.edit('r', { label: 'Exposure', changes: [{ path: ['exposure'], value: 2 }] });
    workbench.edit('m', rename('Two'));
    workbench.close('r');
    expect((await firstValueFrom(workbench.history)).done.map((entry) => entry.document)).toEqual(['m']);
    expect(workbench.document('r')).toBeUndefined();
  });

  it('is saved when everything is', async () => {
    workbench.edit('m', rename('Two'));
    expect((await firstValueFrom(workbench.saveState)).kind).toBe('saving');
    await workbench.flush();
    expect((await firstValueFrom(workbench.saveState)).kind).toBe('saved');
  });

  it('says that a document is not there', async () => {
    await expectAsync(workbench.load('nobody')).toBeRejectedWithError(ApiFailure, 'There is no document nobody.');
  });
});
