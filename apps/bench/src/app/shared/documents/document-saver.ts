import { type BrelvinDocument, type Change, type Transaction, type StoredStep } from '@brelvin/contract';
import { applyChanges, invertChanges, condense, UnfitChange } from '@brelvin/core';
import { BehaviorSubject } from 'rxjs';
import { ApiFailure, type DocumentApi } from '../api/document-api';

export type SaveState =
  | { readonly kind: 'saved' }
  | { readonly kind: 'saving' }
  /** The server or its database is away; edits are kept and tried again. */
  | { readonly kind: 'away'; readonly message: string }
  /** Somebody deleted the document. */
  | { readonly kind: 'deleted'; readonly message: string }
  /** The server will not take some edits; trying again cannot help. They stay in the picture and in this browser. */
  | { readonly kind: 'refused'; readonly message: string };

const QUIET_MS = 350;
const FIRST_RETRY_MS = 1000;
const LONGEST_RETRY_MS = 8000;
const MOST_AT_ONCE = 200;

/** What the saver must tell the one who holds the document. */
export interface SaverEvents {
  /**
   * Others saved steps: this is now the document, with so many unsaved edits of one's own on top, less those that are lost.
   *
   * @param changes what makes it of the document as it was: own edits taken back, those of others, own ones again; nothing
   *   where that is not known
   */
  rebased(document: BrelvinDocument, lost: readonly Transaction[], over: number, changes?: readonly Change[]): void;
  saved(step: number): void;
  /** The server will never take this edit. */
  refused(transaction: Transaction, why: string): void;
}

/** Where edits are kept until they are saved. */
export interface SaverJournal {
  keep(document: string, name: string, transactions: readonly Transaction[]): void;
  drop(ids: Iterable<string>): void;
}

/**
 * Saves one document's transactions in order, each exactly once. Nothing is forgotten before the server has
 * said that it has it.
 */
export class DocumentSaver {
  readonly state = new BehaviorSubject<SaveState>({ kind: 'saved' });
  private waiting: Transaction[] = [];
  private sending: Transaction[] = [];
  /** What the server refused: part of the document here, and nowhere else. */
  private refused: Transaction[] = [];
  private refusal = '';
  /** How many edits are sent at once: one, while it is looked for which of them is refused. */
  private most = MOST_AT_ONCE;
  /** A try to save that has not ended. */
  private running?: Promise<void>;
  private timer?: ReturnType<typeof setTimeout>;
  private retryAfter = FIRST_RETRY_MS;
  /** The last step that was heard of. */
  private heard = 0;
  private pulling = false;

  constructor(
    private readonly id: string,
    private step: number,
    /** The document as of `step`, without unsaved edits. */
    private base: BrelvinDocument,
    private readonly api: Pick<DocumentApi, 'append' | 'restore' | 'stepsAfter'>,
    private readonly events: SaverEvents,
    private readonly journal: SaverJournal,
  ) {}

  /** Edits that are nowhere but here. */
  get unsaved(): number {
    return this.waiting.length + this.sending.length + this.refused.length;
  }

  /** The step the server is known to have. */
  get savedStep(): number {
    return this.step;
  }

  /** Follows what other windows saved: up to a step, or as far as it goes. Own edits stay on top. */
  async pull(step = Infinity): Promise<void> {
    this.heard = Math.max(this.heard, step);
    if (this.pulling || this.sending.length > 0 || this.heard <= this.step) return;
    this.pulling = true;
    try {
      const { steps } = await this.api.stepsAfter(this.id, this.step);
      const last = steps.at(-1);
      // A save that has begun in the meantime finds out by itself.
      if (last && this.sending.length === 0 && last.step > this.step)
        this.rebase(
          steps.filter((each) => each.step > this.step),
          last.step,
        );
      if (this.heard === Infinity) this.heard = this.step;
      // Somebody restored it.
      if (this.state.value.kind === 'deleted') this.goOn();
    } catch (error) {
      if (!(error instanceof ApiFailure)) throw error;
      if (error.status === 410) this.state.next({ kind: 'deleted', message: error.message });
    } finally {
      this.pulling = false;
    }
  }

  add(transaction: Transaction): void {
    const last = this.waiting.at(-1);
    if (last?.gesture && last.gesture === transaction.gesture) {
      this.waiting[this.waiting.length - 1] = { ...last, changes: condense([...last.changes, ...transaction.changes]) };
    } else this.waiting.push(transaction);
    this.journal.keep(this.id, this.base.name, this.waiting.slice(-1));
    const { kind } = this.state.value;
    if (kind === 'away' || kind === 'deleted') return;
    if (kind !== 'saving') this.state.next({ kind: 'saving' });
    this.schedule(QUIET_MS);
  }

  /** Saves now what waits, and what is on its way before it; comes back when that try has ended. */
  async flush(): Promise<void> {
    while (this.running) await this.running;
    clearTimeout(this.timer);
    if (this.waiting.length === 0) return;
    this.running = this.send().finally(() => (this.running = undefined));
    await this.running;
  }

  private async send(): Promise<void> {
    this.sending = this.waiting.slice(0, this.most);
    this.waiting = this.waiting.slice(this.most);
    try {
      const { step } = await this.api.append(this.id, this.step, this.sending);
      this.base = applyAll(this.base, this.sending).document;
      this.step = step;
      this.journal.drop(this.sending.map((each) => each.id));
      this.sending = [];
      this.retryAfter = FIRST_RETRY_MS;
      this.events.saved(step);
      if (this.heard > step) void this.pull(this.heard);
      this.goOn(this.most === 1 ? 0 : QUIET_MS);
    } catch (error) {
      this.waiting = [...this.sending, ...this.waiting];
      this.sending = [];
      if (!(error instanceof ApiFailure)) throw error;
      this.handle(error);
    }
  }

  /** Takes a deletion by somebody else back and saves what waits. */
  async restore(): Promise<void> {
    await this.api.restore(this.id);
    this.goOn();
    await this.flush();
  }

  /** Says how things stand, and saves what waits. */
  private goOn(after = 0): void {
    if (this.waiting.length > 0) {
      this.state.next({ kind: 'saving' });
      this.schedule(after);
      return;
    }
    this.most = MOST_AT_ONCE;
    this.state.next(this.refused.length > 0 ? { kind: 'refused', message: this.refusal } : { kind: 'saved' });
  }

  stop(): void {
    clearTimeout(this.timer);
  }

  private handle(failure: ApiFailure): void {
    const { missed, step } = failure.body;
    if (failure.code === 'stale' && missed && step !== undefined) this.rebase(missed, step);
    else if (failure.status === 410 || failure.status === 404) this.state.next({ kind: 'deleted', message: failure.message });
    else if (failure.away || failure.status >= 500) {
      this.state.next({ kind: 'away', message: failure.message });
      this.schedule(Math.max(this.retryAfter, (failure.retryAfter ?? 0) * 1000));
      this.retryAfter = Math.min(this.retryAfter * 2, LONGEST_RETRY_MS);
    } else this.setAside(failure.message);
  }

  /** One edit that cannot be saved does not stop the others: it is looked for, and left out of what is sent. */
  private setAside(why: string): void {
    if (this.most > 1 && this.waiting.length > 1) this.most = 1;
    else {
      const [first] = this.waiting;
      if (!first) return;
      this.waiting = this.waiting.slice(1);
      this.refused = [...this.refused, first];
      this.refusal = why;
      this.events.refused(first, why);
    }
    this.goOn();
  }

  private rebase(missed: readonly StoredStep[], step: number): void {
    // What was refused lies somewhere between the others, so from here to there is no list of changes.
    const back = this.refused.length > 0 ? undefined : takenBack(this.base, this.waiting);
    // A retried save may find its own steps among the missed ones.
    const theirs = new Set(missed.map((each) => each.id));
    this.base = missed.reduce((document, each) => applyChanges(document, each.changes), this.base);
    this.step = step;
    const own = this.waiting.filter((each) => !theirs.has(each.id)).length;
    const { document, unfit } = applyAll(this.base, [...this.refused, ...this.waiting.filter((each) => !theirs.has(each.id))]);
    const lost = new Set(unfit);
    this.journal.drop([...theirs, ...unfit.map((each) => each.id)]);
    this.refused = this.refused.filter((each) => !lost.has(each));
    this.waiting = this.waiting.filter((each) => !theirs.has(each.id) && !lost.has(each));
    const changes = back && [...back, ...missed.flatMap((each) => each.changes), ...this.waiting.flatMap((each) => each.changes)];
    this.events.rebased(document, unfit, own, changes);
    this.goOn();
  }

  private schedule(milliseconds: number): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.flush(), milliseconds);
  }
}

/** Changes that lead from `start` with the transactions on it back to `start`. */
function takenBack(start: BrelvinDocument, transactions: readonly Transaction[]): Change[] {
  let document = start;
  const back: Change[][] = [];
  for (const { changes } of transactions) {
    back.push(invertChanges(document, changes));
    document = applyChanges(document, changes);
  }
  return back.reverse().flat();
}

function applyAll(start: BrelvinDocument, transactions: readonly Transaction[]): { document: BrelvinDocument; unfit: Transaction[] } {
  let document = start;
  const unfit: Transaction[] = [];
  for (const transaction of transactions) {
    try {
      document = applyChanges(document, transaction.changes);
    } catch (error) {
      if (!(error instanceof UnfitChange)) throw error;
      unfit.push(transaction);
    }
  }
  return { document, unfit };
}
