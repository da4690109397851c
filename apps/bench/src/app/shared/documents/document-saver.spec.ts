import type { BrelvinDocument, Material, StoredStep, Transaction, Change } from '@brelvin/contract';
import { applyChanges, newMaterial } from '@brelvin/core';
import { ApiFailure } from '../api/document-api';
import { DocumentSaver, type SaverEvents } from './document-saver';

interface Sent {
  readonly after: number;
  readonly steps: readonly Transaction[];
}

const NOON = new Date(0).toISOString();

/** A server that answers as it is told. */
class TestServer {
  readonly sent: Sent[] = [];
  restored = 0;
  answers: (number | ApiFailure)[] = [];

  append = async (_id: string, after: number, steps: readonly Transaction[]): Promise<{ step: number }> => {
    this.sent.push({ after, steps });
    const answer = this.answers.shift() ?? after + steps.length;
    if (answer instanceof ApiFailure) throw answer;
    return { step: answer };
  };

  missed: StoredStep[] = [];

  stepsAfter = async (_id: string, after: number) => ({ steps: this.missed.filter((each) => each.step > after) });

  restore = async (): Promise<void> => {
    this.restored++;
  };
}

const change = (id: string, value: string, gesture?: string): Transaction => ({
  id,
  label: id,
  changes: [{ path: ['name'], value }],
  gesture,
});

describe('DocumentSaver', () => {
  const start = newMaterial('Start');
  let server: TestServer;
  let rebased: { document: BrelvinDocument; lost: readonly Transaction[]; changes?: readonly Change[] }[];
  let refused: string[];
  /** Ids of what is kept in the browser. */
  let kept: Set<string>;
  let saver: DocumentSaver;

  beforeEach(() => {
    jasmine.clock().install();
    server = new TestServer();
    rebased = [];
    refused = [];
    kept = new Set();
    const events: SaverEvents = {
      saved: () => undefined,
      rebased: (document, lost, _, changes) => rebased.push({ document, lost, changes }),
      refused: ({ id }) => refused.push(id),
    };
    saver = new DocumentSaver('m', 0, start, server, events, {
      keep: (_document, _name, transactions) => transactions.forEach(({ id }) => kept.add(id)),
      drop: (ids) => [...ids].forEach((id) => kept.delete(id)),
    });
  });

  afterEach(() => {
    saver.stop();
    jasmine.clock().uninstall();
  });

  /** Lets timers and the promises behind them run. */
  async function pass(milliseconds: number): Promise<void> {
    jasmine.clock().tick(milliseconds);
    for (let turn = 0; turn < 12; turn++) await Promise.resolve();
  }

  it('waits for a quiet moment, then saves in order', async () => {
    saver.add(change('a', 'A'));
    await pass(200);
    saver.add(change('b', 'B'));
    expect(saver.state.value.kind).toBe('saving');
    expect(server.sent).toEqual([]);
    await pass(400);
    expect(server.sent.map((each) => each.steps.map((step) => step.id))).toEqual([['a', 'b']]);
    expect(saver.state.value.kind).toBe('saved');
    expect(saver.unsaved).toBe(0);
  });

  it('comes back from saving only when what was added during a save is saved too', async () => {
    let answer: (() => void) | undefined;
    const append = server.append;
    server.append = async (...sent) => {
      const answered = append(...sent);
      if (server.sent.length === 1) await new Promise<void>((resolve) => (answer = resolve));
      return answered;
    };
    saver.add(change('a', 'A'));
    await pass(400);
    saver.add(change('b', 'B'));
    const steps: number[] = [];
    for (let caller = 0; caller < 2; caller++) void saver.flush().then(() => steps.push(saver.savedStep));
    await pass(0);
    expect([server.sent.length, steps]).toEqual([1, []]);
    answer?.();
    await pass(0);
    await pass(0);
    expect(server.sent.map(({ after, steps: each }) => [after, each.map(({ id }) => id)])).toEqual([
      [0, ['a']],
      [1, ['b']],
    ]);
    expect(steps).toEqual([2, 2]);
  });

  it('sends one step for one gesture', async () => {
    for (let count = 0; count < 20; count++) saver.add(change(`drag${count}`, `Name ${count}`, 'g'));
    await pass(400);
    expect(server.sent[0]?.steps.length).toBe(1);
    expect(server.sent[0]?.steps[0]?.changes as object).toEqual([{ path: ['name'], value: 'Name 19' }]);
  });

  it('counts on from the last step', async () => {
    saver.add(change('a', 'A'));
    await pass(400);
    saver.add(change('b', 'B'));
    await pass(400);
    expect(server.sent.map((each) => each.after)).toEqual([0, 1]);
  });

  it('keeps edits while the server is away, tries again ever more slowly, and saves when it is back', async () => {
    const away = new ApiFailure(503, 'database-away', 'The database cannot be reached.');
    server.answers = [away, new ApiFailure(0, 'unreachable', 'gone')];
    saver.add(change('a', 'A'));
    await pass(400);
    expect(saver.state.value).toEqual({ kind: 'away', message: 'The database cannot be reached.' });
    saver.add(change('b', 'B'));
    expect(saver.unsaved).toBe(2);
    await pass(1000);
    expect(saver.state.value.kind).toBe('away');
    await pass(1000);
    expect(server.sent.length).toBe(2);
    await pass(1000);
    expect(server.sent[2]?.steps.map((step) => step.id)).toEqual(['a', 'b']);
    expect(saver.state.value.kind).toBe('saved');
  });

  it('puts its edits on top of what others saved first', async () => {
    const theirs = { ...change('theirs', 'Theirs'), step: 1, at: NOON, changes: [{ path: ['notes'], value: 'theirs' }] };
    server.answers = [new ApiFailure(409, 'stale', 'changed elsewhere', { step: 1, missed: [theirs] })];
    saver.add(change('ours', 'Ours'));
    await pass(400);
    const document = rebased[0]?.document as Material;
    expect([document.name, document.notes]).toEqual(['Ours', 'theirs']);
    expect(rebased[0]?.lost).toEqual([]);
    await pass(10);
    expect(server.sent[1]).toEqual({ after: 1, steps: [change('ours', 'Ours')] });
    expect(saver.state.value.kind).toBe('saved');
  });

  it('says which edits no longer fit', async () => {
    const theirs = { id: 'theirs', label: 'Delete', step: 1, at: NOON, changes: [{ path: ['surface', 'nodes', 'lambert'] }] };
    server.answers = [new ApiFailure(409, 'stale', 'changed elsewhere', { step: 1, missed: [theirs] })];
    saver.add({ id: 'ours', label: 'Move', changes: [{ path: ['surface', 'nodes', 'lambert', 'x'], value: 5 }] });
    await pass(400);
    expect(rebased[0]?.lost.map((each) => each.label)).toEqual(['Move']);
    expect(saver.unsaved).toBe(0);
  });

  it('recognises its own steps among the missed ones: an answer had got lost', async () => {
    server.answers = [new ApiFailure(409, 'stale', 'changed elsewhere', { step: 1, missed: [{ ...change('a', 'A'), step: 1, at: NOON }] })];
    saver.add(change('a', 'A'));
    await pass(400);
    expect(saver.unsaved).toBe(0);
    expect((rebased[0]?.document as Material).name).toBe('A');
    expect(server.sent.length).toBe(1);
  });

  it('stops at a deletion, keeps the edits, and saves them after restoring', async () => {
    server.answers = [new ApiFailure(410, 'deleted', '"Start" was deleted. Restore it to go on.')];
    saver.add(change('a', 'A'));
    await pass(400);
    expect(saver.state.value).toEqual({ kind: 'deleted', message: '"Start" was deleted. Restore it to go on.' });
    await pass(20_000);
    expect(server.sent.length).toBe(1);
    await saver.restore();
    expect(server.restored).toBe(1);
    expect(server.sent.length).toBe(2);
    expect(saver.state.value.kind).toBe('saved');
  });

  it('does not repeat what cannot succeed', async () => {
    server.answers = [new ApiFailure(422, 'unfit-step', 'name may have at most 120 characters')];
    saver.add(change('a', 'A'));
    await pass(400);
    expect(saver.state.value.kind).toBe('refused');
    await pass(20_000);
    expect(server.sent.length).toBe(1);
  });

  it('finds the edit that is refused among many, saves all others, and goes on with what comes later', async () => {
    const no = new ApiFailure(400, 'bad-message', 'steps.1.changes.0.value has a NUL character');
    // All at once, then one by one: the second is the bad one.
    server.answers = [no, 1, no];
    for (const id of ['a', 'b', 'c']) saver.add(change(id, id));
    await pass(400);
    for (let turn = 0; turn < 5; turn++) await pass(10);
    expect(server.sent.map(({ steps }) => steps.map(({ id }) => id).join())).toEqual(['a,b,c', 'a', 'b', 'c']);
    expect(refused).toEqual(['b']);
    expect(saver.state.value).toEqual({ kind: 'refused', message: no.message });
    expect(saver.unsaved).toBe(1);
    expect([...kept])
      .withContext('only what is not saved')
      .toEqual(['b']);
    saver.add(change('d', 'D'));
    expect(saver.state.value.kind).toBe('saving');
    await pass(400);
    expect(server.sent.at(-1)).toEqual({ after: 2, steps: [change('d', 'D')] });
    expect(saver.state.value.kind).withContext('never all is saved').toBe('refused');
  });

  it('keeps edits in the browser until they are acknowledged, with all that their gesture did', async () => {
    saver.add(change('a', 'A', 'g'));
    saver.add(change('b', 'B', 'g'));
    expect([...kept]).toEqual(['a']);
    await pass(400);
    expect([...kept]).toEqual([]);
    expect(server.sent[0]?.steps[0]?.changes as object).toEqual([{ path: ['name'], value: 'B' }]);
  });

  it('waits as long as a busy server asks for', async () => {
    server.answers = [new ApiFailure(503, 'busy', 'The server has more to do than it can at once.', {}, 5)];
    saver.add(change('a', 'A'));
    await pass(400);
    await pass(4900);
    expect(server.sent.length).toBe(1);
    await pass(200);
    expect(saver.state.value.kind).toBe('saved');
  });

  it('says that the document was deleted elsewhere, and goes on once it is restored there', async () => {
    const gone = new ApiFailure(410, 'deleted', '“Start” was deleted.');
    const { stepsAfter } = server;
    server.stepsAfter = () => Promise.reject(gone);
    await saver.pull();
    expect(saver.state.value.kind).toBe('deleted');
    saver.add(change('a', 'A'));
    server.stepsAfter = stepsAfter;
    await saver.pull();
    await pass(10);
    expect([saver.state.value.kind, server.sent.length]).toEqual(['saved', 1]);
  });

  it('follows what other windows saved, own edits on top', async () => {
    server.missed = [{ ...change('theirs', ''), changes: [{ path: ['notes'], value: 'theirs' }], step: 1, at: NOON }];
    saver.add(change('mine', 'Mine'));
    await saver.pull(1);
    expect(rebased.length).toBe(1);
    expect([(rebased[0]?.document as Material).notes, rebased[0]?.document.name]).toEqual(['theirs', 'Mine']);
    await pass(1000);
    expect(server.sent[0]?.after).toBe(1);
  });

  it('says what changed, so that numbers need no compiling', async () => {
    const theirs = [{ path: ['notes'], value: 'theirs' }];
    server.missed = [{ ...change('theirs', ''), changes: theirs, step: 1, at: NOON }];
    await saver.pull(1);
    expect(rebased[0]?.changes).toEqual(theirs);
    server.missed = [{ ...change('more', ''), changes: theirs, step: 2, at: NOON }];
    saver.add(change('mine', 'Mine'));
    await saver.pull(2);
    const before = { ...start, notes: 'theirs', name: 'Mine' };
    expect(applyChanges(before, rebased[1]?.changes ?? [])).toEqual(rebased[1]?.document as Material);
  });

  it('says what changed from numbers to numbers, although own edits are not saved yet', async () => {
    const x = (id: string, value: number): Transaction => ({
      id,
      label: 'Move',
      changes: [{ path: ['surface', 'nodes', 'lambert', 'x'], value }],
    });
    server.missed = [{ ...x('theirs', 700), step: 1, at: NOON }];
    saver.add(x('first', 40));
    saver.add(x('second', 50));
    await saver.pull(1);
    const own = applyChanges(start, [...x('', 40).changes, ...x('', 50).changes]);
    expect(applyChanges(own, rebased[0]?.changes ?? [])).toEqual(rebased[0]?.document as Material);
    expect(rebased[0]?.changes?.every(({ path }) => path.at(-1) === 'x')).toBeTrue();
  });

  it('passes over steps it has, and asks for none twice', async () => {
    saver.add(change('a', 'A'));
    await pass(1000);
    await saver.pull(1);
    expect(rebased).toEqual([]);
    server.missed = [{ ...change('b', 'B'), step: 2, at: NOON }];
    await Promise.all([saver.pull(2), saver.pull(2)]);
    expect(rebased.length).toBe(1);
    expect(saver.savedStep).toBe(2);
  });
});
