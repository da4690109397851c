import { InjectionToken, type Injector, type Type } from '@angular/core';
import type { Tab } from '../../shared/controls/tabs';

/** A tab of a panel below the graph and the Stage. */
export interface PanelEntry {
  readonly id: string;
  /** What its tab says, by what is on the Bench now; its id where it says nothing. */
  readonly tab?: (injector: Injector) => Omit<Tab<string>, 'value'>;
  readonly view: Type<unknown>;
}

/** Of the panel about the material, and of that about light, in the order of their tabs; see `registered.ts`. */
export const PANELS = new InjectionToken<readonly PanelEntry[]>('tabs of the panel about the material');
export const RIG_PANELS = new InjectionToken<readonly PanelEntry[]>('tabs of the panel about light');

export function panelTabs(entries: readonly PanelEntry[], injector: Injector): readonly Tab<string>[] {
  return entries.map(({ id, tab }) => ({ value: id, ...tab?.(injector) }));
}
