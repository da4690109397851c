import { inject } from '@angular/core';
import { DocumentStore } from '../documents/document-store';
import { GraphEditor } from '../editors/graph-editor';
import type { WorkspaceEntry } from '../registry/workspace-entry';
import { GraphBar } from './graph-bar';
import { GraphSurface } from './graph-surface';

export const GRAPH_WORKSPACE: WorkspaceEntry = {
  id: 'graph',
  // A material is a graph or code; so is a field that stands in its set.
  tab: () => {
    const [{ material }, { field }] = [inject(DocumentStore), inject(GraphEditor)];
    return () => (material()?.code === undefined || field() !== undefined ? {} : undefined);
  },
  view: GraphSurface,
  bar: GraphBar,
  command: { title: 'Show the graph' },
};
