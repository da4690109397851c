import type { PanelEntry } from '../registry/panel-entry';

export const ENVIRONMENT_TAB: PanelEntry = {
  id: 'environment',
  tab: () => () => ({ help: 'The environment map: its light, its reflections, and how it is seen' }),
  view: { opens: 'the environment', load: () => import('../later-panels').then(({ EnvironmentPanel }) => EnvironmentPanel) },
};
