import { computed, signal } from '@angular/core';
import type { TagCount } from '@brelvin/contract';
import type { PickerEntry, PickerSource } from './picker-source';

const PAGE = 60;

/** The entries of a source as far as they are looked at: a page is read when one of it comes into view. */
export class PickedPages {
  readonly search = signal('');
  readonly tag = signal<string | undefined>(undefined);
  readonly total = signal(0);
  readonly state = signal<'loading' | 'ready' | 'away'>('loading');
  readonly tags = signal<readonly TagCount[]>([]);
  readonly indices = computed(() => Array.from({ length: this.total() }, (_, index) => index));
  private readonly pages = signal<ReadonlyMap<number, readonly PickerEntry[]>>(new Map());
  private readonly asked = new Set<number>();
  /** Answers to an earlier question are thrown away. */
  private turn = 0;

  constructor(private readonly source: PickerSource) {
    void source.tags().then(
      (tags) => this.tags.set(tags),
      () => undefined,
    );
    this.read(0);
  }

  ask(search: string, tag = this.tag()): void {
    this.search.set(search);
    this.tag.set(tag);
    this.again();
  }

  again(): void {
    this.turn++;
    this.asked.clear();
    this.pages.set(new Map());
    this.state.set('loading');
    this.read(0);
  }

  /** An entry, once its page has come. */
  entry(index: number): PickerEntry | undefined {
    const page = Math.floor(index / PAGE);
    const found = this.pages().get(page)?.[index % PAGE];
    if (!found) queueMicrotask(() => this.read(page));
    return found;
  }

  private read(page: number): void {
    if (this.asked.has(page)) return;
    this.asked.add(page);
    void this.load(page, this.turn);
  }

  private async load(page: number, turn: number): Promise<void> {
    try {
      const query = { search: this.search().trim(), tag: this.tag(), offset: page * PAGE, limit: PAGE };
      const { entries, total } = await this.source.page(query);
      if (turn !== this.turn) return;
      this.pages.update((pages) => new Map(pages).set(page, entries));
      this.total.set(total);
      this.state.set('ready');
    } catch {
      if (turn === this.turn) this.state.set('away');
    }
  }
}
