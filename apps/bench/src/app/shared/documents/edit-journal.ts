import { inject, Injectable } from '@angular/core';
import type { Transaction } from '@brelvin/contract';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import { Notices } from '../notices/notices';
import { newId } from './new-id';

/** An edit that the server has not acknowledged. */
export interface KeptEdit {
  /** Of the transaction. */
  readonly id: string;
  readonly document: string;
  /** What the document was called. */
  readonly name: string;
  /** The window that it was made in. */
  readonly window: string;
  /** Orders the edits of one window. */
  readonly order: number;
  readonly at: number;
  readonly transaction: Transaction;
}

interface Tables extends DBSchema {
  edits: { key: string; value: KeptEdit; indexes: { document: string } };
}

const NAME = 'brelvin';
const LOCK = 'brelvin-window ';

/**
 * Edits in the browser's own database, from when they are made until the server has said that it has them: leaving, a closed
 * tab, a crash of the browser or a server that is away for a day lose none.
 */
@Injectable({ providedIn: 'root' })
export class EditJournal {
  private readonly notices = inject(Notices);
  /** This window, as long as it lives. */
  private readonly window = newId();
  private order = 0;
  private opened?: Promise<IDBPDatabase<Tables> | undefined>;
  /** What is to be written next: an edit, or nothing in its place. The last word counts. */
  private readonly waiting = new Map<string, KeptEdit | undefined>();
  private writing?: Promise<void>;

  /** Keeps edits, or keeps them anew with all that their gesture did meanwhile. */
  keep(document: string, name: string, transactions: readonly Transaction[]): void {
    for (const transaction of transactions) {
      const { id } = transaction;
      this.waiting.set(id, { id, document, name, window: this.window, order: this.order++, at: Date.now(), transaction });
    }
    void this.written();
  }

  /** The server has these, or they were given up. */
  drop(ids: Iterable<string>): void {
    for (const id of ids) this.waiting.set(id, undefined);
    void this.written();
  }

  /** This window lets go of a document: what of it is not saved is offered like that of a window that is gone. */
  async leave(document: string): Promise<void> {
    await this.written();
    const found = (await (await this.open())?.getAllFromIndex('edits', 'document', document)) ?? [];
    for (const each of found) if (each.window === this.window) this.waiting.set(each.id, { ...each, window: '' });
    await this.written();
  }

  /** Edits that windows which are gone have left, in the order they were made; of one document, or of all. */
  async left(document?: string): Promise<KeptEdit[]> {
    await this.written();
    const database = await this.open();
    if (!database) return [];
    const found = document === undefined ? await database.getAll('edits') : await database.getAllFromIndex('edits', 'document', document);
    if (found.length === 0) return [];
    const alive = await this.windows();
    return found.filter((each) => !alive.has(each.window)).sort((a, b) => a.at - b.at || a.order - b.order);
  }

  /** Comes back when all is in the database that was to be written. */
  async written(): Promise<void> {
    while (this.waiting.size > 0) {
      this.writing ??= this.write().finally(() => (this.writing = undefined));
      await this.writing;
    }
  }

  private async write(): Promise<void> {
    const batch = [...this.waiting];
    this.waiting.clear();
    const database = await this.open();
    if (!database) return;
    try {
      const { store, done } = database.transaction('edits', 'readwrite', { durability: 'strict' });
      for (const [id, edit] of batch) void (edit ? store.put(edit) : store.delete(id));
      await done;
    } catch (error) {
      this.complain(error);
    }
  }

  private open(): Promise<IDBPDatabase<Tables> | undefined> {
    return (this.opened ??= this.opening());
  }

  private async opening(): Promise<IDBPDatabase<Tables> | undefined> {
    try {
      const database = await openDB<Tables>(NAME, 1, {
        upgrade: (made) => void made.createObjectStore('edits', { keyPath: 'id' }).createIndex('document', 'document'),
      });
      // Held until the window is gone, however it goes. Never waited for.
      void navigator.locks?.request(LOCK + this.window, () => new Promise(() => undefined));
      return database;
    } catch (error) {
      this.complain(error);
      return undefined;
    }
  }

  /** Windows that are open, this one among them. Without locks (plain http on a network) only this one is known. */
  private async windows(): Promise<ReadonlySet<string>> {
    const held = (await navigator.locks?.query())?.held ?? [];
    return new Set([this.window, ...held.flatMap(({ name }) => (name?.startsWith(LOCK) ? [name.slice(LOCK.length)] : []))]);
  }

  private complain(error: unknown): void {
    const reason = error instanceof Error ? error.message : String(error);
    this.notices.say(`Edits are not kept in this browser until they are saved, since it keeps nothing: ${reason}`);
  }
}
