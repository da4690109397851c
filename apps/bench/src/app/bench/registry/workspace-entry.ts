import { InjectionToken, type Type } from '@angular/core';
import type { Tab } from '../../shared/controls/tabs';
import type { EntryView } from './entry-view';

/** A tab of the work area. */
export interface WorkspaceEntry {
  readonly id: string;
  /** Gives what its tab says; nothing where it has no place. Called once, in an injection context; what it gives is asked again as things change. */
  readonly tab: () => () => Omit<Tab<string>, 'value'> | undefined;
  readonly view: EntryView;
  /** What stands beside the tabs. */
  readonly bar?: Type<unknown>;
  /** What else it can be found by, in the list of commands; it has no command where absent. */
  readonly command?: { readonly title: string; readonly words?: string };
}

/** In the order of the tabs; see `registered.ts`. */
export const WORKSPACES = new InjectionToken<readonly WorkspaceEntry[]>('tabs of the work area');
