import type { GraphSurface } from '../graph/graph-surface';
import type { Alignment, GraphWork } from '../graph/graph-work';
import type { Command } from './command';

/** What commands act on. */
export interface BenchHands {
  readonly work: GraphWork;
  readonly surface: GraphSurface | undefined;
  tidy(): void;
  undo(): void;
  redo(): void;
  frameMesh(): void;
  toggleTime(): void;
  toggleAlone(): void;
  toggleView(): void;
  togglePeek(): void;
  toggleProbe(): void;
  showKeys(): void;
  readCode(): void;
  showTab(tab: 'graph' | 'code' | 'parts'): void;
  sendOut(): void;
}

const ALIGNMENTS: readonly (readonly [Alignment, string])[] = [
  ['left', 'Align left edges'],
  ['right', 'Align right edges'],
  ['top', 'Align top edges'],
  ['bottom', 'Align bottom edges'],
  ['across', 'Spread across evenly'],
  ['down', 'Spread down evenly'],
];

/** All commands of the Bench, in the order of the list. */
export function benchCommands(hands: BenchHands): readonly Command[] {
  const { work, surface } = hands;
  const needsChosen = (): string | undefined => (work.chosen().size > 0 ? undefined : 'Choose nodes first.');
  const inGroup = (): string | undefined => (work.group() === undefined ? 'This is not inside a group.' : undefined);
  const withClipboard = (use: (text: string) => void) => async (): Promise<void> => {
    try {
      use(await navigator.clipboard.readText());
    } catch {
      work.refuse('The browser did not give the clipboard. Press Ctrl V on the graph instead.');
    }
  };
  return [
    { id: 'find', title: 'Find a node', words: 'add insert', keys: 'Insert', run: () => surface?.openFinder() },
    { id: 'undo', title: 'Undo', words: 'take back', keys: 'Ctrl Z', run: () => hands.undo() },
    { id: 'redo', title: 'Redo', words: 'again', keys: 'Ctrl Shift Z', run: () => hands.redo() },
    { id: 'redo-y', title: 'Redo the last step', keys: 'Ctrl Y', run: () => hands.redo() },
    {
      id: 'copy',
      title: 'Copy nodes',
      unable: needsChosen,
      run: () => void navigator.clipboard.writeText(work.copied() ?? ''),
    },
    {
      id: 'paste',
      title: 'Paste nodes',
      run: () => void withClipboard((text) => work.paste(text, surface?.pastePlace() ?? { x: 0, y: 0 }))(),
    },
    { id: 'duplicate', title: 'Duplicate', keys: 'Ctrl D', unable: needsChosen, run: () => work.duplicate() },
    { id: 'choose-all', title: 'Choose everything', words: 'select all', keys: 'Ctrl A', run: () => work.selectAll() },
    { id: 'delete', title: 'Delete, closing the gap', words: 'remove heal', unable: needsChosen, run: () => work.remove() },
    {
      id: 'delete-open',
      title: 'Delete with its ribbons',
      words: 'remove',
      unable: needsChosen,
      run: () => work.remove(work.chosen(), false),
    },
    { id: 'unused', title: 'Remove unused nodes', words: 'clean dead', run: () => work.removeUnused() },
    {
      id: 'swap',
      title: 'Swap for another kind',
      words: 'replace change',
      keys: 'Ctrl E',
      unable: needsChosen,
      run: () => surface?.openSwap(),
    },
    { id: 'name', title: 'Name', words: 'rename title', keys: 'F2', unable: needsChosen, run: () => surface?.startNaming() },
    { id: 'group', title: 'Make a group', words: 'collapse combine', keys: 'Ctrl G', unable: needsChosen, run: () => work.makeGroup() },
    {
      id: 'ungroup',
      title: 'Unmake the group',
      words: 'explode',
      keys: 'Ctrl Shift G',
      unable: needsChosen,
      run: () => work.unmakeGroup(),
    },
    {
      id: 'enter',
      title: 'Open the group',
      words: 'inside',
      keys: 'PageDown',
      unable: needsChosen,
      run: () => {
        const [id] = work.chosen();
        if (id !== undefined) work.enter(id);
      },
    },
    { id: 'leave', title: 'Leave the group', words: 'out up', keys: 'PageUp', unable: inGroup, run: () => work.leave() },
    { id: 'area', title: 'Surround by an area', words: 'frame box region', keys: 'Ctrl B', unable: needsChosen, run: () => work.addArea() },
    { id: 'note', title: 'Add a note', words: 'comment remark', run: () => surface?.addNote() },
    { id: 'tidy', title: 'Tidy', words: 'layout arrange order', keys: 'Ctrl L', run: () => hands.tidy() },
    ...ALIGNMENTS.map(([how, title]): Command => ({
      id: `align-${how}`,
      title,
      words: 'distribute',
      unable: needsChosen,
      run: () => work.align(how),
    })),
    { id: 'show-all', title: 'Show the whole graph', words: 'zoom fit', keys: 'Home', run: () => surface?.showAll() },
    { id: 'show-chosen', title: 'Show what is chosen', words: 'zoom fit', keys: 'End', run: () => surface?.showChosen() },
    {
      id: 'view',
      title: 'Last special view, and back',
      words: 'debug normals wireframe uv depth',
      keys: 'F8',
      run: () => hands.toggleView(),
    },
    { id: 'peek', title: 'Peek at the chosen node', words: 'see value outlet mesh debug', keys: 'F6', run: () => hands.togglePeek() },
    {
      id: 'probe',
      title: 'Probe: values at points of the picture',
      words: 'pick read pixel pin',
      keys: 'F7',
      run: () => hands.toggleProbe(),
    },
    {
      id: 'previews',
      title: 'Small pictures on the chosen nodes',
      words: 'preview thumbnail',
      unable: needsChosen,
      run: () => work.togglePreviews(work.chosen()),
    },
    { id: 'previews-all', title: 'Small pictures on all nodes', words: 'preview thumbnail', run: () => work.togglePreviews() },
    { id: 'frame', title: 'Frame the meshes', words: 'camera', run: () => hands.frameMesh() },
    { id: 'time', title: 'Stop or start the Stage’s clock', words: 'pause play', run: () => hands.toggleTime() },
    { id: 'alone', title: 'The picture alone', words: 'full window', keys: 'F9', run: () => hands.toggleAlone() },
    { id: 'tab-graph', title: 'Show the graph', run: () => hands.showTab('graph') },
    { id: 'tab-code', title: 'Show the code', words: 'text glsl shading', run: () => hands.showTab('code') },
    {
      id: 'read-code',
      title: 'Read the chosen node’s code',
      words: 'function source formula glsl fork',
      unable: needsChosen,
      run: () => hands.readCode(),
    },
    { id: 'tab-parts', title: 'Show the parts', run: () => hands.showTab('parts') },
    { id: 'send-out', title: 'Send the material out as a file', words: 'export save', run: () => hands.sendOut() },
    { id: 'keys', title: 'Show the keys', words: 'help shortcuts', keys: '?', run: () => hands.showKeys() },
  ];
}
