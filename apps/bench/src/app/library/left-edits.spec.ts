import { TestBed } from '@angular/core/testing';
import { provideRouter, Router } from '@angular/router';
import type { BrelvinDocument, Transaction } from '@brelvin/contract';
import { applyChanges, newMaterial, newRig } from '@brelvin/core';
import { DocumentApi } from '../shared/api/document-api';
import { EditJournal, type KeptEdit } from '../shared/documents/edit-journal';
import { Notices } from '../shared/notices/notices';
import { LeftEdits } from './left-edits';

const edit = (document: string, name: string, id: string, path: string[], value: string): KeptEdit => ({
  id,
  document,
  name,
  window: 'gone',
  order: 0,
  at: 0,
  transaction: { id, label: `Change ${path.join(' ')}`, changes: [{ path, value }] },
});

describe('LeftEdits', () => {
  let left: KeptEdit[];
  let stored: Map<string, BrelvinDocument>;
  let saved: string[];
  let appended: (readonly [string, number, readonly Transaction[]])[];
  let refuses: boolean;

  beforeEach(() => {
    stored = new Map<string, BrelvinDocument>([
      ['rig', newRig('Lamp on the sill')],
      ['cheek', newMaterial('Puppet cheek')],
    ]);
    left = [];
    saved = [];
    appended = [];
    refuses = false;
    const api: Partial<DocumentApi> = {
      read: async (id) => ({ id, step: 7, document: stored.get(id) as BrelvinDocument }),
      history: async (id) => ({
        base: stored.get(id) as BrelvinDocument,
        baseStep: 0,
        steps: saved.map((each, index) => ({ id: each, step: index + 1, label: '', changes: [], at: '2026-11-20T10:00:00Z' })),
      }),
      append: async (id, after, steps) => {
        if (refuses) throw new Error('The server cannot be reached.');
        appended.push([id, after, steps]);
        return { step: after + steps.length };
      },
    };
    const journal: Partial<EditJournal> = {
      left: async (id) => left.filter(({ document }) => id === undefined || document === id),
      drop: (ids) => {
        const gone = new Set(ids);
        left = left.filter(({ id }) => !gone.has(id));
      },
    };
    TestBed.configureTestingModule({
      providers: [
        provideRouter([{ path: '**', children: [] }]),
        { provide: DocumentApi, useValue: api },
        { provide: EditJournal, useValue: journal },
      ],
    });
  });

  const offers = (): string[] =>
    TestBed.inject(Notices)
      .shown()
      .map(({ words, actions }) => [words, ...(actions ?? []).map((each) => each.words)].join(' | '));

  async function press(words: string): Promise<void> {
    const found = TestBed.inject(Notices)
      .shown()
      .flatMap(({ actions }) => actions ?? [])
      .find((each) => each.words === words);
    found!.run();
    await new Promise((resolve) => setTimeout(resolve, 20));
  }

  it('sends materials to the Bench, and offers all others here, each document once', async () => {
    left = [
      edit('cheek', 'Puppet cheek', 'a', ['notes'], ''),
      edit('rig', 'Lamp', 'b', ['name'], ''),
      edit('rig', 'Lamp', 'c', ['name'], ''),
    ];
    await TestBed.inject(LeftEdits).offer();
    expect(offers().map((each) => each.replace(/ has edits.*browser\./, ''))).toEqual([
      '“Puppet cheek” | Open it',
      '“Lamp” | Put in again | Forget',
    ]);
    const navigate = spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    await press('Open it');
    expect(navigate).toHaveBeenCalledWith(['/bench', 'cheek']);
  });

  it('puts in as steps of today what is not saved and still fits, and names the rest', async () => {
    left = [
      edit('rig', 'Lamp', 'answer-lost', ['name'], 'Earlier'),
      edit('rig', 'Lamp', 'b', ['name'], 'Lamp at dusk'),
      edit('rig', 'Lamp', 'c', ['lights', 'nobody', 'name'], 'Sun'),
    ];
    saved = ['answer-lost'];
    await TestBed.inject(LeftEdits).offer();
    await press('Put in again');
    expect(appended.length).toBe(1);
    const [id, after, steps] = appended[0]!;
    expect([id, after, steps.length]).toEqual(['rig', 7, 1]);
    expect(steps[0]?.id).not.toBe('b');
    expect(applyChanges(stored.get('rig') as BrelvinDocument, steps[0]?.changes ?? []).name).toBe('Lamp at dusk');
    expect(offers().at(-1)).toBe('“Lamp” has its edits again. These did not fit any more: “Change lights nobody name”.');
    expect(left).toEqual([]);
  });

  it('keeps them when the server does not take them, and tries again', async () => {
    left = [edit('rig', 'Lamp', 'b', ['name'], 'Lamp at dusk')];
    await TestBed.inject(LeftEdits).offer();
    refuses = true;
    await press('Put in again');
    expect(offers().at(-1)).toBe(
      'The edits of “Lamp” could not be put in: The server cannot be reached. They are still kept here. | Try again',
    );
    expect(left.length).toBe(1);
    refuses = false;
    await press('Try again');
    expect(appended.length).toBe(1);
    expect(left).toEqual([]);
  });

  it('forgets them when told to', async () => {
    left = [edit('rig', 'Lamp', 'b', ['name'], 'Lamp at dusk')];
    await TestBed.inject(LeftEdits).offer();
    await press('Forget');
    expect(left).toEqual([]);
    expect(appended).toEqual([]);
  });
});
