import type { PanelEntry } from '../registry/panel-entry';

export const OUTLINE_TAB: PanelEntry = {
  id: 'outline',
  tab: () => () => ({ help: 'The line round what has this material' }),
  view: { opens: 'the outline', load: () => import('../later-panels').then(({ OutlinePanel }) => OutlinePanel) },
};
