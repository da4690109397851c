import type { PanelEntry } from '../registry/panel-entry';

export const OPACITY_TAB: PanelEntry = {
  id: 'opacity',
  tab: () => () => ({ help: 'How what is behind this material is seen through it' }),
  view: { opens: 'the opacity', load: () => import('../later-panels').then(({ OpacityPanel }) => OpacityPanel) },
};
