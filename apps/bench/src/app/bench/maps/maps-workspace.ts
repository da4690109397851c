import type { WorkspaceEntry } from '../registry/workspace-entry';

export const MAPS_WORKSPACE: WorkspaceEntry = {
  id: 'maps',
  tab: () => () => ({ help: 'The images of this material, and sets of maps' }),
  view: { opens: 'the maps', load: () => import('./maps-view').then(({ MapsView }) => MapsView) },
};
