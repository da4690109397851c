import { inject } from '@angular/core';
import { DocumentStore } from '../documents/document-store';
import type { WorkspaceEntry } from '../registry/workspace-entry';
import { GraphBar } from './graph-bar';
import { GraphSurface } from './graph-surface';

export const GRAPH_WORKSPACE: WorkspaceEntry = {
  id: 'graph',
  // A material is a graph or code.
  tab: () => {
    const { material } = inject(DocumentStore);
    return () => (material()?.code === undefined ? {} : undefined);
  },
  view: GraphSurface,
  bar: GraphBar,
  command: { title: 'Show the graph' },
};
