import { computed, inject, InjectionToken, type Signal } from '@angular/core';
import type { Tab } from '../../shared/controls/tabs';
import type { EntryView } from './entry-view';

/** A tab of a panel below the graph and the Stage. */
export interface PanelEntry {
  readonly id: string;
  /** Gives what its tab says; its id where it says nothing, no tab where it gives nothing. Called once, in an injection context; what it gives is asked again as things change. */
  readonly tab?: () => () => Omit<Tab<string>, 'value'> | undefined;
  readonly view: EntryView;
}

/** Of the panel about the material, and of that about light, in the order of their tabs; see `registered.ts`. */
export const PANELS = new InjectionToken<readonly PanelEntry[]>('tabs of the panel about the material');
export const RIG_PANELS = new InjectionToken<readonly PanelEntry[]>('tabs of the panel about light');

/** The tabs of registered panels, as they say now. Called in an injection context. */
export function panelTabs(token: typeof PANELS): Signal<readonly Tab<string>[]> {
  const entries = inject(token).map(({ id, tab }) => ({ id, said: tab?.() }));
  return computed(() =>
    entries.flatMap(({ id, said }) => {
      const words = said ? said() : {};
      return words ? [{ value: id, ...words }] : [];
    }),
  );
}
