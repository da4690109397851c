import { inject } from '@angular/core';
import type { Command, PlaceKey } from '../commands/command';
import { GraphEditor, type Alignment } from '../editors/graph-editor';
import { SurfaceBinding } from '../editors/surface-binding';
import { Tidier } from './tidier';

const ALIGNMENTS: readonly (readonly [Alignment, string])[] = [
  ['left', 'Align left edges'],
  ['right', 'Align right edges'],
  ['top', 'Align top edges'],
  ['bottom', 'Align bottom edges'],
  ['across', 'Distribute horizontally'],
  ['down', 'Distribute vertically'],
];

/** Keys of the graph besides those of its commands. */
export const GRAPH_KEYS: readonly PlaceKey[] = [
  { keys: 'letters', help: 'on the graph: find a node' },
  { keys: 'Delete', help: 'remove what is selected' },
  { keys: 'arrows', help: 'move the selected nodes; with none selected, the graph' },
  { keys: 'Tab, Enter', help: 'go from port to port; take a ribbon up, set it down' },
  { keys: 'Escape', help: 'let go, deselect, close' },
];

export function finderCommands(): readonly Command[] {
  const surface = inject(SurfaceBinding);
  return [{ id: 'find', title: 'Find a node', words: 'add insert', keys: 'Insert', run: () => surface.actions()?.openFinder() }];
}

export function graphCommands(): readonly Command[] {
  const [editor, surface, tidier] = [inject(GraphEditor), inject(SurfaceBinding), inject(Tidier)];
  const needsChosen = (): string | undefined => (editor.chosen().size > 0 ? undefined : 'Select nodes first.');
  const inGroup = (): string | undefined => (editor.group() === undefined ? 'This is not inside a group.' : undefined);
  const enter = (): void => {
    const [id] = editor.chosen();
    if (id !== undefined) editor.enter(id);
  };
  return [
    { id: 'copy', title: 'Copy nodes', unable: needsChosen, run: () => void navigator.clipboard.writeText(editor.copied() ?? '') },
    { id: 'paste', title: 'Paste nodes', run: () => void pasteFromClipboard(editor, surface) },
    { id: 'duplicate', title: 'Duplicate', keys: 'Ctrl D', unable: needsChosen, run: () => editor.duplicate() },
    { id: 'choose-all', title: 'Select all', words: 'choose everything', keys: 'Ctrl A', run: () => editor.selectAll() },
    { id: 'delete', title: 'Delete and reconnect', words: 'remove heal', unable: needsChosen, run: () => editor.remove() },
    {
      id: 'delete-open',
      title: 'Delete with its ribbons',
      words: 'remove',
      unable: needsChosen,
      run: () => editor.remove(editor.chosen(), false),
    },
    { id: 'unused', title: 'Remove unused nodes', words: 'clean dead', run: () => editor.removeUnused() },
    {
      id: 'swap',
      title: 'Swap for another kind',
      words: 'replace change',
      keys: 'Ctrl E',
      unable: needsChosen,
      run: () => surface.actions()?.openSwap(),
    },
    { id: 'name', title: 'Name', words: 'rename title', keys: 'F2', unable: needsChosen, run: () => surface.actions()?.startNaming() },
    { id: 'group', title: 'Make a group', words: 'collapse combine', keys: 'Ctrl G', unable: needsChosen, run: () => editor.makeGroup() },
    {
      id: 'ungroup',
      title: 'Ungroup',
      words: 'explode',
      keys: 'Ctrl Shift G',
      unable: needsChosen,
      run: () => editor.unmakeGroup(),
    },
    { id: 'enter', title: 'Open the group', words: 'inside', keys: 'PageDown', unable: needsChosen, run: enter },
    { id: 'leave', title: 'Leave the group', words: 'out up', keys: 'PageUp', unable: inGroup, run: () => editor.leave() },
    {
      id: 'area',
      title: 'Surround by an area',
      words: 'frame box region',
      keys: 'Ctrl B',
      unable: needsChosen,
      run: () => editor.addArea(),
    },
    { id: 'note', title: 'Add a note', words: 'comment remark', run: () => surface.actions()?.addNote() },
    { id: 'tidy', title: 'Tidy', words: 'layout arrange order', keys: 'Ctrl L', run: () => void tidyGraph(tidier, surface) },
    ...ALIGNMENTS.map(([how, title]): Command => ({
      id: `align-${how}`,
      title,
      words: 'spread evenly',
      unable: needsChosen,
      run: () => editor.align(how),
    })),
    {
      id: 'show-all',
      title: 'Show the whole graph',
      words: 'zoom fit',
      keys: 'Home',
      run: () => surface.actions()?.showAll(),
    },
    { id: 'show-chosen', title: 'Show the selection', words: 'zoom fit', keys: 'End', run: () => surface.actions()?.showChosen() },
  ];
}

/** Lays the graph out, and shows it. */
export async function tidyGraph(tidier: Tidier, surface: SurfaceBinding): Promise<void> {
  // The graph shows its new places only after this.
  if (await tidier.tidy()) setTimeout(() => surface.actions()?.showAll());
}

async function pasteFromClipboard(editor: GraphEditor, surface: SurfaceBinding): Promise<void> {
  try {
    editor.paste(await navigator.clipboard.readText(), surface.actions()?.pastePlace() ?? { x: 0, y: 0 });
  } catch {
    editor.refuse('The browser did not give the clipboard. Press Ctrl V on the graph instead.');
  }
}
