import { inject } from '@angular/core';
import type { Command, PlaceKey } from '../commands/command';
import { GraphEditor } from '../editors/graph-editor';
import { BenchPlaces } from '../layout/bench-places';
import { SourceEditor } from './source-editor';

/** Keys of the code tab. */
export const CODE_KEYS: readonly PlaceKey[] = [
  { keys: 'Alt M', help: 'in code: mend what is nearest to the cursor, in the other stage when nothing here can be' },
  { keys: 'Alt N', help: 'in code: go to the next thing that is wrong, in both stages' },
  { keys: 'Alt G', help: 'in code: show where the name under the cursor is written; so does Ctrl and a click' },
  { keys: 'Alt R', help: 'in code: give the name under the cursor another one' },
  { keys: 'Ctrl Space', help: 'in code: what can be written here' },
  { keys: 'Ctrl F', help: 'in code: search, and replace' },
];

export function codeCommands(): readonly Command[] {
  const [work, code, places] = [inject(GraphEditor), inject(SourceEditor), inject(BenchPlaces)];
  const read = (): void => {
    const [id] = work.chosen();
    const kind = work.typed().graph.nodes[id ?? '']?.kind;
    if (kind === undefined) return;
    places.workspace.set('code');
    code.wantedKind.set(kind);
  };
  return [
    {
      id: 'read-code',
      title: 'Read the selected node’s code',
      words: 'function source formula glsl fork',
      unable: () => (work.chosen().size > 0 ? undefined : 'Select a node first.'),
      run: read,
    },
  ];
}
