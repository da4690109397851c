import type { WorkspaceEntry } from '../registry/workspace-entry';

export const PARTS_WORKSPACE: WorkspaceEntry = {
  id: 'parts',
  tab: () => () => ({ help: 'What stands on the Stage, and the materials of its parts' }),
  view: { opens: 'the parts', load: () => import('./parts-view').then(({ PartsView }) => PartsView) },
  command: { title: 'Show the parts' },
};
