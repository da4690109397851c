import { inject, type Type } from '@angular/core';
import type { EntryView } from './registry/entry-view';
import type { PanelEntry } from './registry/panel-entry';
import { ViewSettings } from './stage/view-settings';

/** A panel that is fetched with the others that are not shown at first. */
function later(opens: string, panel: (panels: typeof import('./later-panels')) => Type<unknown>): EntryView {
  return { opens, load: () => import('./later-panels').then(panel) };
}

export const HISTORY_TAB: PanelEntry = {
  id: 'history',
  view: later('the history', ({ HistoryPanel }) => HistoryPanel),
};
export const OUTLINE_TAB: PanelEntry = {
  id: 'outline',
  tab: () => () => ({ help: 'The line round what has this material' }),
  view: later('the outline', ({ OutlinePanel }) => OutlinePanel),
};
export const OPACITY_TAB: PanelEntry = {
  id: 'opacity',
  tab: () => () => ({ help: 'How what is behind this material is seen through it' }),
  view: later('the opacity', ({ OpacityPanel }) => OpacityPanel),
};
export const PROBE_TAB: PanelEntry = {
  id: 'probe',
  tab: () => () => ({ help: 'Read the values of all nodes at points of the picture (F7)' }),
  view: later('the probe', ({ ProbePanel }) => ProbePanel),
};
export const COST_TAB: PanelEntry = {
  id: 'cost',
  tab: () => () => ({ help: 'What the picture costs: by node, by pass, and how that grows' }),
  view: later('the cost', ({ CostPanel }) => CostPanel),
};
export const ENVIRONMENT_TAB: PanelEntry = {
  id: 'environment',
  tab: () => () => ({ help: 'The environment map: its light, its reflections, and how it is seen' }),
  view: later('the environment', ({ EnvironmentPanel }) => EnvironmentPanel),
};
export const PICTURE_TAB: PanelEntry = {
  id: 'picture',
  view: later('the picture', ({ PicturePanel }) => PicturePanel),
};
export const TERMS_TAB: PanelEntry = {
  id: 'terms',
  tab: () => {
    const { isWhole } = inject(ViewSettings);
    return () => ({ words: isWhole() ? 'terms' : 'terms ·' });
  },
  view: later('the terms', ({ TermsMixer }) => TermsMixer),
};
