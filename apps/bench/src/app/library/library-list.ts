import { inject, Injectable, signal } from '@angular/core';
import { Subject } from 'rxjs';
import type { ListOptions } from '../shared/api/document-api';
import { Shelves, type Shelf, type ShelfEntry } from './shelves';

export interface LibraryQuery extends Omit<ListOptions, 'offset' | 'limit'> {
  readonly kind: Shelf;
}

const PAGE = 60;

/** One shelf of the Library as far as it is looked at: pages are read when an entry of them comes into view. */
@Injectable()
export class LibraryList {
  private readonly shelves = inject(Shelves);
  private readonly pages = signal<ReadonlyMap<number, readonly ShelfEntry[]>>(new Map());
  private readonly asked = new Set<number>();
  private readonly said = new Subject<string>();
  /** Answers to an earlier question are thrown away. */
  private turn = 0;
  /** Entries whose fields are open: nothing moves while there are any. */
  private held = 0;
  private later = false;
  /** How pages looked when they were last read, whatever has been amended since. */
  private readonly standing = new Map<number, string>();

  readonly query = signal<LibraryQuery>({ kind: 'material', sort: 'changed', deleted: false });
  readonly total = signal(0);
  readonly tags = signal<readonly { tag: string; count: number }[]>([]);
  readonly state = signal<'loading' | 'ready' | 'away'>('loading');
  /** Whether the shelf is not as it is shown any more: somebody else was at it. */
  readonly stale = signal(false);
  readonly failures = this.said.asObservable();

  ask(change: Partial<LibraryQuery>): void {
    this.query.set({ ...this.query(), ...change });
    this.pages.set(new Map());
    this.total.set(0);
    this.state.set('loading');
    this.refresh();
  }

  /** An entry's field opens, or closes: what would move entries under the hand waits for it. */
  hold(open: boolean): void {
    this.held += open ? 1 : -1;
    if (this.held === 0 && this.later) this.refresh();
  }

  /** Shows of an entry what is on its way to be stored. */
  amend(id: string, change: Partial<Pick<ShelfEntry, 'name' | 'tags'>>): void {
    const amended = (entries: readonly ShelfEntry[]): readonly ShelfEntry[] =>
      entries.some((entry) => entry.id === id) ? entries.map((entry) => (entry.id === id ? { ...entry, ...change } : entry)) : entries;
    this.pages.set(new Map([...this.pages()].map(([page, entries]) => [page, amended(entries)])));
  }

  /** Reads what is seen anew; it stays until then. */
  refresh(): void {
    this.later = this.held > 0;
    if (this.later) return;
    const pages = this.pages().size > 0 ? [...this.pages().keys()] : [0];
    this.turn++;
    this.stale.set(false);
    this.asked.clear();
    this.standing.clear();
    for (const page of pages) void this.load(page);
    void this.readTags();
  }

  /**
   * Reads what is seen anew, and leaves everything at its place: what one changes oneself does not move away under the hand.
   *
   * @param own the entry that one changed; that it is not asked for any more is no news
   */
  async freshen(own: string): Promise<void> {
    const { turn } = this;
    const pages = [...this.pages().keys()];
    void this.readTags();
    const now = await Promise.all(pages.map((page) => this.read(page))).catch(() => undefined);
    if (!now || turn !== this.turn) return;
    const known = new Map(now.flatMap(({ entries }) => entries.map((entry) => [entry.id, entry] as const)));
    const shown = [...this.pages().values()].flat();
    this.pages.set(new Map([...this.pages()].map(([page, entries]) => [page, entries.map((entry) => known.get(entry.id) ?? entry)])));
    pages.forEach((page, index) => this.standing.set(page, looks(now[index])));
    const others = shown.filter(({ id }) => id !== own);
    known.delete(own);
    this.stale.set(others.length !== known.size || others.some(({ id }) => !known.has(id)));
  }

  /** Looks whether the shelf still is as it is shown. Nothing moves under a hand: whoever looks at it says when to show it anew. */
  async compare(): Promise<void> {
    const { turn } = this;
    const before = new Map(this.standing);
    const now = await Promise.all([...before.keys()].map((page) => this.read(page))).catch(() => undefined);
    if (!now || turn !== this.turn) return;
    // What was read in between is newer than what is compared.
    this.stale.set([...before].some(([page, stood], index) => this.standing.get(page) === stood && looks(now[index]) !== stood));
  }

  /** An entry by its place; nothing while it is on its way. */
  entry(index: number): ShelfEntry | undefined {
    const page = Math.floor(index / PAGE);
    const found = this.pages().get(page);
    if (!found && !this.asked.has(page) && this.state() === 'ready') queueMicrotask(() => void this.load(page));
    return found?.[index % PAGE];
  }

  private async load(page: number): Promise<void> {
    if (this.asked.has(page)) return;
    this.asked.add(page);
    const { turn } = this;
    try {
      const { entries, total } = await this.read(page);
      if (turn !== this.turn) return;
      this.pages.set(new Map(this.pages()).set(page, entries));
      this.standing.set(page, looks({ entries, total }));
      this.total.set(total);
      this.state.set('ready');
    } catch (error) {
      if (turn !== this.turn) return;
      this.asked.delete(page);
      this.state.set('away');
      this.said.next(error instanceof Error ? error.message : String(error));
    }
  }

  private readTags(): Promise<void> {
    return this.shelves.tags(this.query().kind).then(
      ({ tags }) => this.tags.set(tags),
      () => undefined,
    );
  }

  private read(page: number): Promise<{ entries: readonly ShelfEntry[]; total: number }> {
    const { kind, ...options } = this.query();
    return this.shelves.list(kind, { ...options, offset: page * PAGE, limit: PAGE });
  }
}

/** What of a page is read in a list; pictures and times follow by themselves. */
function looks(page: { readonly entries: readonly ShelfEntry[]; readonly total: number } | undefined): string {
  return JSON.stringify([page?.total, page?.entries.map(({ id, name, tags }) => [id, name, tags])]);
}
