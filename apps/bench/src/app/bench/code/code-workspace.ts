import { inject } from '@angular/core';
import { DocumentStore } from '../documents/document-store';
import type { WorkspaceEntry } from '../registry/workspace-entry';

export const CODE_WORKSPACE: WorkspaceEntry = {
  id: 'code',
  tab: () => {
    const { material } = inject(DocumentStore);
    return () => ({ help: material()?.code === undefined ? 'The graph, read as code' : 'The text of this material' });
  },
  view: { opens: 'the code', load: () => import('./code-view').then(({ CodeView }) => CodeView) },
  command: { title: 'Show the code', words: 'text glsl shading' },
};
