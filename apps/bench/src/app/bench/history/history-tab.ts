import type { PanelEntry } from '../registry/panel-entry';

export const HISTORY_TAB: PanelEntry = {
  id: 'history',
  view: { opens: 'the history', load: () => import('../later-panels').then(({ HistoryPanel }) => HistoryPanel) },
};
