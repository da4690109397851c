import { DestroyRef, Injectable, inject } from '@angular/core';
import { type BrelvinDocument, type Change, type Transaction, type HistoryPart } from '@brelvin/contract';
import {
  applyChanges,
  EMPTY_HISTORY,
  forget,
  historyOf,
  invertChanges,
  mergeHistories,
  record,
  redo,
  soundChanges,
  undo,
  UnfitChange,
  type Edit,
  type History,
  type HistoryEntry,
} from '@brelvin/core';
import { BehaviorSubject, Subject, combineLatest, distinctUntilChanged, map, of, switchMap, type Observable } from 'rxjs';
import { DocumentApi } from '../api/document-api';
import { Notices } from '../notices/notices';
import { DocumentSaver, type SaverEvents, type SaveState } from './document-saver';
import { EditJournal } from './edit-journal';
import { LiveChannel } from './live-channel';
import { newId } from './new-id';

/** Something happened to a document on the Bench. */
export interface DocumentChange {
  readonly id: string;
  readonly document: BrelvinDocument;
  /** Absent when the document was opened or replaced as a whole. */
  readonly changes?: readonly Change[];
}

type Open = ReadonlyMap<string, BrelvinDocument>;

/**
 * The documents on the Bench. Every edit, from any panel, goes through `edit`; views, the compiler, saving and
 * the history all follow from it.
 */
@Injectable()
export class Workbench {
  private readonly api = inject(DocumentApi);
  private readonly live = inject(LiveChannel);
  private readonly journal = inject(EditJournal);
  private readonly notices = inject(Notices);
  private readonly open = new BehaviorSubject<Open>(new Map());
  private readonly savers = new Map<string, DocumentSaver>();
  private readonly saverList = new BehaviorSubject<readonly DocumentSaver[]>([]);
  private readonly changed = new Subject<DocumentChange>();
  private readonly stored = new Subject<{ id: string; step: number }>();
  private readonly told = new Subject<string>();
  private readonly past = new BehaviorSubject<History>(EMPTY_HISTORY);

  readonly changes: Observable<DocumentChange> = this.changed.asObservable();
  readonly saved: Observable<{ id: string; step: number }> = this.stored.asObservable();
  /** What the user should know, in a sentence. */
  readonly messages: Observable<string> = this.told.asObservable();
  readonly history: Observable<History> = this.past.asObservable();
  /** The worst state of all open documents. */
  readonly saveState: Observable<SaveState> = this.saverList.pipe(
    switchMap((savers) => (savers.length > 0 ? combineLatest(savers.map((saver) => saver.state)) : of<SaveState[]>([]))),
    map((states) => WORST_FIRST.map((kind) => states.find((state) => state.kind === kind)).find(Boolean) ?? { kind: 'saved' as const }),
  );

  constructor() {
    const told = this.live.news.subscribe(({ id, step, named }) => {
      if (named !== undefined) return;
      for (const [each, saver] of this.savers) if (id === undefined || each === id) void saver.pull(step);
    });
    inject(DestroyRef).onDestroy(() => told.unsubscribe());
  }

  document(id: string): BrelvinDocument | undefined {
    return this.open.value.get(id);
  }

  watch<T extends BrelvinDocument>(id: string): Observable<T | undefined> {
    return this.open.pipe(
      map((open) => open.get(id) as T | undefined),
      distinctUntilChanged(),
    );
  }

  /** @throws ApiFailure */
  async load(id: string): Promise<BrelvinDocument> {
    const already = this.document(id);
    if (already) return already;
    const { step, document } = await this.api.read(id);
    // Undo goes back beyond the last time the page was opened; without it one can work, too.
    const past = await this.api.history(id).catch(() => undefined);
    const events: SaverEvents = {
      refused: ({ label }, why) =>
        this.told.next(`“${label}” cannot be saved: ${why} It stays as it is here, and all else is saved; undo takes it back.`),
      saved: (saved) => this.stored.next({ id, step: saved }),
      rebased: (rebased, lost, over, changes) => {
        if (this.savers.get(id) !== saver) return;
        this.put(id, rebased, changes);
        if (over === 0) return;
        const names = lost.map((each) => `“${each.label}”`).join(', ');
        this.told.next(
          lost.length > 0
            ? `“${rebased.name}” was changed in another window. These edits did not fit any more and are gone: ${names}.`
            : `“${rebased.name}” was changed in another window; your edits are on top of it.`,
        );
      },
    };
    const saver = new DocumentSaver(id, step, document, this.api, events, this.journal);
    this.savers.set(id, saver);
    if (past) this.past.next(mergeHistories(this.past.value, pastOf(id, past)));
    this.live.watch([...this.savers.keys()]);
    this.saverList.next([...this.savers.values()]);
    this.put(id, document);
    void this.offerLeft(id, document, new Set(past?.steps.map((each) => each.id)));
    return document;
  }

  /** Edits of an earlier visit that were never saved: they are put in again as steps of today, or forgotten, as the user says. */
  private async offerLeft(id: string, { name }: BrelvinDocument, saved: ReadonlySet<string>): Promise<void> {
    const found = await this.journal.left(id);
    const [stored, left] = [found.filter((each) => saved.has(each.id)), found.filter((each) => !saved.has(each.id))];
    // The answer got lost, the edit did not.
    this.journal.drop(stored.map((each) => each.id));
    const [first] = left;
    if (!first) return;
    const forget = (): void => this.journal.drop(left.map((each) => each.id));
    const putIn = (): void => {
      // The notice outlives the page that it was made on.
      if (!this.document(id)) {
        this.notices.say(`“${name}” is not open any more. Its edits are still kept; they are offered when you open it again.`);
        return;
      }
      const unfit = left.filter(({ transaction }) => !this.tryEdit(id, transaction));
      forget();
      if (unfit.length > 0)
        this.told.next(`These edits do not fit “${name}” any more: ${unfit.map((each) => `“${each.transaction.label}”`).join(', ')}.`);
    };
    const what = left.length === 1 ? `An edit of “${name}” was` : `${left.length} edits of “${name}” were`;
    const made = new Date(first.at).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' });
    const labels = [...new Set(left.map((each) => each.transaction.label))];
    const more = labels.length > MOST_LABELS ? ` and ${labels.length - MOST_LABELS} more` : '';
    this.notices.say(`${what} never saved (${made}: ${labels.slice(0, MOST_LABELS).join(', ')}${more}).`, [
      { words: 'Put in again', run: putIn },
      { words: 'Forget', run: forget },
    ]);
  }

  /** @returns whether the edit fits */
  private tryEdit(id: string, { label, changes }: Edit): boolean {
    try {
      this.edit(id, { label, changes });
      return true;
    } catch (error) {
      if (!(error instanceof UnfitChange)) throw error;
      return false;
    }
  }

  /** Takes a document off the Bench, once its edits are on their way. */
  close(id: string): void {
    const saver = this.savers.get(id);
    const name = this.document(id)?.name ?? '';
    if (saver)
      void saver.flush().then(() => {
        saver.stop();
        if (saver.unsaved === 0) return;
        void this.journal.leave(id);
        this.notices.say(`Not all of “${name}” is saved. What is not is kept in this browser, and offered when you open it again.`);
      });
    this.savers.delete(id);
    this.live.watch([...this.savers.keys()]);
    this.saverList.next([...this.savers.values()]);
    const open = new Map(this.open.value);
    open.delete(id);
    this.open.next(open);
    this.past.next(forget(this.past.value, id));
  }

  closeAll(): void {
    for (const id of [...this.savers.keys()]) this.close(id);
  }

  /** Applies an edit; those of one gesture become one step. Edits that change nothing leave no trace. */
  edit(id: string, { label, changes: wished }: Edit, gesture?: string): void {
    const before = this.document(id);
    if (!before || wished.length === 0) return;
    const changes = soundChanges(wished);
    if (changes !== wished) this.told.next(UNSOUND_WORDS);
    const after = applyChanges(before, changes);
    if (after === before) return;
    const inverse = invertChanges(before, changes);
    this.past.next(record(this.past.value, { document: id, label, forward: changes, inverse, gesture, at: Date.now() }));
    this.commit(id, after, { label, changes, gesture });
  }

  /** Takes the last step back; what one gesture did to several documents goes together. */
  undo(): void {
    for (let last: HistoryEntry | undefined; ;) {
      const step = undo(this.past.value);
      if (!step || (last && !isOneGesture(last, step.entry))) return;
      this.replay(step.history, step.entry, 'undo');
      last = step.entry;
    }
  }

  redo(): void {
    for (let last: HistoryEntry | undefined; ;) {
      const step = redo(this.past.value);
      if (!step || (last && !isOneGesture(last, step.entry))) return;
      this.replay(step.history, step.entry, 'redo');
      last = step.entry;
    }
  }

  /** Goes to a point of the history: so many steps done. */
  jump(done: number): void {
    for (let count = this.past.value.done.length; count > done && count > 0; count--) this.undo();
    for (let left = done - this.past.value.done.length; left > 0 && this.past.value.undone.length > 0; left--) this.redo();
  }

  /** The step that the server has of a document, once everything is saved. */
  async savedStep(id: string): Promise<number | undefined> {
    const saver = this.savers.get(id);
    await saver?.flush();
    return saver?.savedStep;
  }

  async flush(): Promise<void> {
    await Promise.all([...this.savers.values()].map((saver) => saver.flush()));
  }

  async restoreDeleted(): Promise<void> {
    const deleted = [...this.savers.values()].filter((saver) => saver.state.value.kind === 'deleted');
    await Promise.all(deleted.map((saver) => saver.restore()));
  }

  get unsaved(): number {
    return [...this.savers.values()].reduce((sum, saver) => sum + saver.unsaved, 0);
  }

  tell(message: string): void {
    this.told.next(message);
  }

  private replay(history: History, entry: HistoryEntry, direction: 'undo' | 'redo'): void {
    const before = this.document(entry.document);
    if (!before) return;
    this.past.next(history);
    const changes = direction === 'undo' ? entry.inverse : entry.forward;
    const label = `${direction === 'undo' ? 'Undo' : 'Redo'}: ${entry.label}`.slice(0, 200);
    try {
      this.commit(entry.document, applyChanges(before, changes), { label, changes, direction });
    } catch (error) {
      if (!(error instanceof UnfitChange)) throw error;
      this.told.next(`“${entry.label}” cannot be ${direction === 'undo' ? 'taken back' : 'done again'}: what it changed is gone.`);
    }
  }

  private commit(id: string, document: BrelvinDocument, { changes, ...step }: Omit<Transaction, 'id'>): void {
    this.savers.get(id)?.add({ id: newId(), changes, ...step });
    this.open.next(new Map(this.open.value).set(id, document));
    this.changed.next({ id, document, changes });
  }

  private put(id: string, document: BrelvinDocument, changes?: readonly Change[]): void {
    this.open.next(new Map(this.open.value).set(id, document));
    this.changed.next({ id, document, changes });
  }
}

function isOneGesture(a: HistoryEntry, b: HistoryEntry): boolean {
  return a.gesture !== undefined && a.gesture === b.gesture && a.document !== b.document;
}

/** Labels that a sentence names. */
const MOST_LABELS = 3;
export const UNSOUND_WORDS =
  'Characters that no file can keep were taken out of the text: NUL, or halves of a pair that stands for one character.';

const WORST_FIRST: readonly SaveState['kind'][] = ['deleted', 'refused', 'away', 'saving'];

function pastOf(id: string, { base, steps }: HistoryPart): History {
  return historyOf(
    id,
    base,
    steps.map((step) => ({ ...step, at: Date.parse(step.at) })),
  );
}
