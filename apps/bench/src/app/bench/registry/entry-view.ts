import { computed, effect, signal, untracked, type Signal, type Type } from '@angular/core';

/** A view that is fetched when it is first shown; meanwhile it says what is opened. */
export interface LaterView {
  readonly opens: string;
  readonly load: () => Promise<Type<unknown>>;
}

/** What an entry of the Bench shows. */
export type EntryView = Type<unknown> | LaterView;

interface Entry {
  readonly id: string;
  readonly view: EntryView;
}

/** The view of the entry that is shown. */
export interface ShownView {
  /** Nothing as long as it is fetched, or where it cannot be had. */
  readonly view: Signal<Type<unknown> | undefined>;
  /** What is said meanwhile. */
  readonly waiting: Signal<string>;
}

const NOT_LOADED = 'This part of Brelvin could not be loaded: the server cannot be reached. Reload the page.';

/** Fetches views as they are shown. Called in an injection context. */
export function shownView(shown: Signal<Entry | undefined>): ShownView {
  /** By entry; what could not be had is said. */
  const loaded = signal<ReadonlyMap<string, Type<unknown> | 'failed'>>(new Map());
  const found = computed(() => {
    const entry = shown();
    if (!entry) return undefined;
    return isLater(entry.view) ? loaded().get(entry.id) : entry.view;
  });
  const load = async ({ id, view }: Entry): Promise<void> => {
    if (!isLater(view) || (loaded().get(id) ?? 'failed') !== 'failed') return;
    const each = await view.load().catch(() => 'failed' as const);
    loaded.update((all) => new Map(all).set(id, each));
  };
  effect(() => {
    const entry = shown();
    if (entry) untracked(() => void load(entry));
  });
  return {
    view: computed(() => {
      const view = found();
      return view === 'failed' ? undefined : view;
    }),
    waiting: computed(() => {
      if (found() === 'failed') return NOT_LOADED;
      const view = shown()?.view;
      return view && isLater(view) ? `Opening ${view.opens} …` : '';
    }),
  };
}

function isLater(view: EntryView): view is LaterView {
  return 'load' in view;
}
