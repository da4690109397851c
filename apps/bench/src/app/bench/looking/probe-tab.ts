import type { PanelEntry } from '../registry/panel-entry';

export const PROBE_TAB: PanelEntry = {
  id: 'probe',
  tab: () => () => ({ help: 'Read the values of all nodes at points of the picture (F7)' }),
  view: { opens: 'the probe', load: () => import('../later-panels').then(({ ProbePanel }) => ProbePanel) },
};
