import type { PanelEntry } from '../registry/panel-entry';

export const COST_TAB: PanelEntry = {
  id: 'cost',
  tab: () => () => ({ help: 'What the picture costs: by node, by pass, and how that grows' }),
  view: { opens: 'the cost', load: () => import('../later-panels').then(({ CostPanel }) => CostPanel) },
};
