import { type Clipping, type Material, validate, MATERIAL } from '@brelvin/contract';
import { library } from '../catalogue/library';
import { compileMaterial } from '../compile/compile-material';
import { kindOfNode } from '../compile/group-kind';
import { makeGroup, unmakeGroup } from '../compile/grouping';
import { resolveGraph } from '../compile/resolve';
import { removeHealed } from '../compile/rewiring';
import { TypedGraph } from '../compile/typed-graph';
import { clip, paste } from './clipping';
import { DOCK, inletOf } from './graph';
import type { Edit } from './edit';
import { GraphEdits } from './graph-edits';
import { rename } from './material-edits';
import {
  EMPTY_HISTORY,
  forget,
  historyOf,
  mergeHistories,
  record,
  redo,
  undo,
  type History,
  type HistoryEntry,
  type PastStep,
} from './history';
import { newMaterial } from './new-documents';
import { applyChanges, invertChanges } from './transaction';

function entry(label: string, gesture?: string, value = 1): HistoryEntry {
  return { document: 'a', label, forward: [{ path: ['x'], value }], inverse: [{ path: ['x'], value: value - 1 }], gesture };
}

describe('History', () => {
  it('goes back and forth', () => {
    const history = record(record(EMPTY_HISTORY, entry('one')), entry('two'));
    const back = undo(history)!;
    expect(back.entry.label).toBe('two');
    expect(redo(back.history)!.entry.label).toBe('two');
    expect(undo(EMPTY_HISTORY)).toBeUndefined();
    expect(redo(history)).toBeUndefined();
  });

  it('drops what was taken back when something new is done', () => {
    const back = undo(record(EMPTY_HISTORY, entry('one')))!.history;
    expect(redo(record(back, entry('two')))).toBeUndefined();
  });

  it('counts one gesture as one step that leads back to its start', () => {
    let history: History = EMPTY_HISTORY;
    for (let value = 1; value <= 5; value++) history = record(history, entry('drag', 'g', value));
    expect(history.done.length).toBe(1);
    expect(history.done[0]?.forward as object).toEqual([{ path: ['x'], value: 5 }]);
    expect(history.done[0]?.inverse as object).toEqual([{ path: ['x'], value: 0 }]);
  });

  it('keeps gestures on different documents apart', () => {
    const history = record(record(EMPTY_HISTORY, entry('drag', 'g')), { ...entry('drag', 'g'), document: 'b' });
    expect(history.done.length).toBe(2);
    expect(forget(history, 'a').done.map((each) => each.document)).toEqual(['b']);
  });

  it('forgets the oldest steps beyond twenty thousand', () => {
    const long: History = { done: Array.from({ length: 20_000 }, (_, count) => entry(`step ${count}`)), undone: [] };
    const longer = record(long, entry('last'));
    expect(longer.done.length).toBe(20_000);
    expect(longer.done[0]?.label).toBe('step 1');
  });
});

describe('History of a document that is opened again', () => {
  const step = (id: string, value: number, rest: Partial<PastStep> = {}): PastStep => ({
    id,
    label: id,
    changes: [{ path: ['x'], value }],
    at: value,
    ...rest,
  });

  it('can be taken back as if the page had never been left, drags as one step', () => {
    const steps = [step('a', 1), step('b', 2, { gesture: 'g' }), step('c', 3, { gesture: 'g' })];
    const history = historyOf('m', { x: 0 }, steps);
    expect(history.done.map((entry) => entry.label)).toEqual(['a', 'c']);
    expect(history.done[1]?.inverse as object).toEqual([{ path: ['x'], value: 1 }]);
  });

  it('knows what was taken back, and can do it again', () => {
    const steps = [step('a', 1), step('b', 2), step('back', 1, { direction: 'undo' })];
    const history = historyOf('m', { x: 0 }, steps);
    expect([history.done.map((entry) => entry.label), history.undone.map((entry) => entry.label)]).toEqual([['a'], ['b']]);
    expect(historyOf('m', { x: 0 }, [...steps, step('again', 2, { direction: 'redo' })]).done.length).toBe(2);
    expect(historyOf('m', { x: 0 }, [...steps, step('new', 5)]).undone).toEqual([]);
  });

  it('starts anew where a step does not fit', () => {
    expect(historyOf('m', {}, [{ ...step('a', 1), changes: [{ path: ['gone', 'x'], value: 1 }] }])).toEqual(EMPTY_HISTORY);
  });

  it('goes by time over several documents', () => {
    const merged = mergeHistories(historyOf('a', { x: 0 }, [step('a1', 1), step('a3', 3)]), historyOf('b', { x: 0 }, [step('b2', 2)]));
    expect(merged.done.map((entry) => entry.label)).toEqual(['a1', 'b2', 'a3']);
  });
});

/** A small generator of repeatable random numbers (Marsaglia 2003, "Xorshift RNGs"). */
function randomFrom(seed: number): (below: number) => number {
  let state = seed;
  return (below) => {
    state ^= state << 13;
    state ^= state >>> 17;
    state ^= state << 5;
    return (state >>> 0) % below;
  };
}

const edits = new GraphEdits();

/** A material that is edited at random, with its history. */
class RandomWork {
  material: Material;
  history: History = EMPTY_HISTORY;
  private names = 0;
  private clipping?: Clipping;

  constructor(
    readonly start: Material,
    private readonly random: (below: number) => number,
  ) {
    this.material = start;
  }

  private readonly newId = (): string => `n${this.names++}`;

  private apply(edit: Edit, gesture?: string): void {
    const inverse = invertChanges(this.material, edit.changes);
    this.material = applyChanges(this.material, edit.changes);
    this.history = record(this.history, { document: 'm', label: edit.label, forward: edit.changes, inverse, gesture });
  }

  private some(ids: readonly string[]): string {
    return ids[this.random(ids.length || 1)] ?? 'none';
  }

  /** One random gesture: edits, undo, redo, copy, paste, groups. */
  step(count: number): void {
    const { material, random } = this;
    const nodes = Object.keys(material.surface.nodes);
    const target = this.some(nodes);
    const typed = (): TypedGraph => new TypedGraph(material, library(), resolveGraph(material, library()));
    const choice = random(17);
    if (choice < 4 && nodes.length < 60) {
      const kind = KINDS[random(KINDS.length)]!;
      this.apply(edits.addNode(this.newId(), { kind: kind.id, rev: 1, x: random(900), y: random(600), values: {} }, kind.title));
    } else if (choice === 4) this.apply(edits.remove(material, [target, this.some(nodes)]));
    else if (choice === 5) this.apply(removeHealed(typed(), new Set([target])));
    else if (choice < 8 && nodes.length > 0) {
      const node = material.surface.nodes[target]!;
      const inlets = kindOfNode(library(), material, node)?.inlets ?? [];
      const inlet = inlets[random(inlets.length || 1)]?.name ?? 'a';
      const to = random(5) === 0 ? { node: DOCK, inlet: 'colour' } : { node: target, inlet };
      this.apply(edits.connect({ node: this.some(nodes), outlet: 'result' }, to));
    } else if (choice === 8) {
      const key = this.some(Object.keys(material.surface.ribbons));
      if (key !== 'none') this.apply(edits.disconnect(inletOf(key)));
    } else if (choice === 9) this.apply(edits.move(material, nodes.slice(0, 3), random(50), -random(50)), `move${Math.floor(count / 7)}`);
    else if (choice === 10 && nodes.length > 0)
      this.apply(edits.setInletValue({ node: target, inlet: 'a' }, random(100) / 7, 'A'), `set${Math.floor(count / 5)}`);
    else if (choice === 11) this.apply(rename(`Name ${random(1000)}`));
    else if (choice === 12) this.clipping = clip(material, edits, new Set(nodes.slice(0, 4)));
    else if (choice === 13 && this.clipping && nodes.length < 60)
      this.apply(paste(material, edits, this.clipping, { newId: this.newId, dx: 20, dy: 20 }).edit);
    else if (choice === 14) {
      const made =
        random(2) === 0 ? makeGroup(typed(), new Set([target, this.some(nodes)]), this.newId) : unmakeGroup(typed(), target, this.newId);
      if (made) this.apply(made.edit);
    } else this.goThrough(choice === 15 ? 'back' : 'forth');
  }

  goThrough(way: 'back' | 'forth'): boolean {
    const step = way === 'back' ? undo(this.history) : redo(this.history);
    if (!step) return false;
    this.material = applyChanges(this.material, way === 'back' ? step.entry.inverse : step.entry.forward);
    this.history = step.history;
    return true;
  }
}

const KINDS = [...library().kinds.values()].filter((kind) => kind.overloads.length > 0);

describe('Ten thousand random edits, undos, redos, pastes and groups', () => {
  it('stay valid, lead back to the start and forth to the end', () => {
    const work = new RandomWork(newMaterial('Random'), randomFrom(20261123));
    for (let count = 0; count < 10_000; count++) {
      work.step(count);
      if (count % 500 === 0) {
        expect(validate(MATERIAL, work.material)).toEqual([]);
        expect(() => compileMaterial(work.material)).not.toThrow();
      }
    }
    expect(validate(MATERIAL, work.material)).toEqual([]);
    const end = work.material;
    let steps = 0;
    while (work.goThrough('back')) steps++;
    expect(steps).toBeGreaterThan(1000);
    expect(work.material).toEqual(work.start);
    while (work.goThrough('forth')) steps--;
    // What was taken back at the end is done again too, so the end is passed by.
    while (steps++ < 0) work.goThrough('back');
    expect(work.material).toEqual(end);
  });
});
