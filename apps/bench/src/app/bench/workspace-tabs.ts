import type { Tab } from '../shared/controls/tabs';

export type Workspace = 'graph' | 'code' | 'maps' | 'parts';

/** What the work area shows: a material is a graph or code. */
export function workspaceTabs(isCode: boolean): readonly Tab<Workspace>[] {
  return [
    ...(isCode ? [] : [{ value: 'graph' } as const]),
    { value: 'code', help: isCode ? 'The text of this material' : 'The graph, read as code' },
    { value: 'maps', help: 'The images of this material, and sets of maps' },
    { value: 'parts', help: 'What stands on the Stage, and what its parts wear' },
  ];
}
