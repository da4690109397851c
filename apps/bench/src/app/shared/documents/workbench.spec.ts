import { TestBed } from '@angular/core/testing';
import { newMaterial, newRig, rename, type BrelvinDocument, type LightRig, type Material } from '@brelvin/core';
import { firstValueFrom } from 'rxjs';
import { ApiFailure, DocumentApi } from '../api/document-api';
import { Workbench, type DocumentChange } from './workbench';

describe('Workbench', () => {
  let workbench: Workbench;
  let changes: DocumentChange[];
  const stored: Record<string, BrelvinDocument> = { m: newMaterial('Start'), r: newRig('Rig') };

  beforeEach(async () => {
    const api = {
      read: async (id: string) => {
        const document = stored[id];
        if (!document) throw new ApiFailure(404, 'missing', `There is no document ${id}.`);
        return { id, step: 0, document };
      },
      history: async () => ({ base: newMaterial('Start'), baseStep: 0, steps: [] }),
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
