import { inject } from '@angular/core';
import type { Command } from '../commands/command';
import { GraphEditor } from '../editors/graph-editor';
import { BenchPlaces } from '../layout/bench-places';
import { ViewSettings } from '../stage/view-settings';
import { OutletInspector } from './outlet-inspector';

export function lookingCommands(): readonly Command[] {
  const [editor, outlets, look, places] = [inject(GraphEditor), inject(OutletInspector), inject(ViewSettings), inject(BenchPlaces)];
  const needsChosen = (): string | undefined => (editor.chosen().size > 0 ? undefined : 'Select nodes first.');
  return [
    {
      id: 'view',
      title: 'Last special view, and back',
      words: 'debug normals wireframe uv depth',
      keys: 'F8',
      help: 'the special view that was used last, and back',
      run: () => look.toggleView(),
    },
    {
      id: 'peek',
      title: 'Peek at the selected node',
      words: 'see value outlet mesh debug',
      keys: 'F6',
      help: 'see on the mesh what the selected node gives, and back',
      run: () => togglePeek(editor, outlets),
    },
    {
      id: 'probe',
      title: 'Probe: values at points of the picture',
      words: 'pick read pixel pin',
      keys: 'F7',
      help: 'read the values of all nodes at points of the picture, and stop',
      run: () => places.panel.update((panel) => (panel === 'probe' ? 'about' : 'probe')),
    },
    {
      id: 'previews',
      title: 'Previews on the selected nodes',
      words: 'small pictures thumbnail',
      unable: needsChosen,
      run: () => editor.togglePreviews(editor.chosen()),
    },
    { id: 'previews-all', title: 'Previews on all nodes', words: 'small pictures thumbnail', run: () => editor.togglePreviews() },
  ];
}

function togglePeek(editor: GraphEditor, outlets: OutletInspector): void {
  const [id] = editor.chosen();
  if (id !== undefined) outlets.togglePeek(id);
  else if (outlets.peek()) outlets.stopPeek();
  else editor.refuse('Select the node to peek at.');
}
