import { Injectable, signal } from '@angular/core';

/** Something that a notice offers to do. */
export interface NoticeAction {
  readonly words: string;
  readonly run: () => void;
}

/** A few words for the user that no page owns: they stay when one goes from page to page. */
export interface Notice {
  readonly id: number;
  readonly words: string;
  readonly actions: readonly NoticeAction[];
  /** Of work that is under way: the part that is done, 0…1. */
  readonly share?: number;
  /** How often the same was said. */
  readonly times: number;
}

/** Work that is told of while it goes on. */
export interface ToldWork {
  readonly signal: AbortSignal;
  progress(share: number, words?: string): void;
  end(words: string, actions?: readonly NoticeAction[]): void;
  close(): void;
}

const MOST = 4;

/** What is said to the user across pages; the newest stands last, and old ones make room. */
@Injectable({ providedIn: 'root' })
export class Notices {
  private readonly all = signal<readonly Notice[]>([]);
  readonly shown = this.all.asReadonly();
  private nextId = 0;

  say(words: string, actions: readonly NoticeAction[] = []): number {
    const same = this.all().find((each) => each.words === words && each.share === undefined);
    if (same) {
      this.patch(same.id, { times: same.times + 1, actions });
      return same.id;
    }
    const id = this.nextId++;
    this.all.update((all) => {
      const done = all.filter((each) => each.share === undefined);
      const [oldest] = done;
      const kept = done.length >= MOST ? all.filter((each) => each !== oldest) : all;
      return [...kept, { id, words, actions, times: 1 }];
    });
    return id;
  }

  /** Tells of work that is under way, to be cancelled by the user. */
  work(words: string): ToldWork {
    const abort = new AbortController();
    const id = this.nextId++;
    const cancel: NoticeAction = { words: 'Cancel', run: () => abort.abort() };
    this.all.update((all) => [...all, { id, words, actions: [cancel], share: 0, times: 1 }]);
    return {
      signal: abort.signal,
      progress: (share, now = words) => this.patch(id, { share, words: now }),
      end: (ended, actions = []) => this.patch(id, { words: ended, actions, share: undefined }),
      close: () => this.close(id),
    };
  }

  close(id: number): void {
    this.all.update((all) => all.filter((each) => each.id !== id));
  }

  private patch(id: number, change: Partial<Notice>): void {
    this.all.update((all) => all.map((each) => (each.id === id ? { ...each, ...change } : each)));
  }
}
