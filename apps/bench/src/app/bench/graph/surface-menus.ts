import type { LiveInput } from '@brelvin/contract';
import { GROUP_KIND, inletKey, type InletAddress } from '@brelvin/core';
import type { Command } from '../commands/command';
import type { Point } from '../editors/card-layout';
import type { GraphEditor } from '../editors/graph-editor';

/** What menus need of the surface beyond the work itself. */
export interface MenuActions {
  swap(): void;
  name(id: string): void;
  find(at: Point): void;
  /** Finds a node that goes into a ribbon. */
  insert(to: InletAddress, at: Point): void;
  note(): void;
  showAll(): void;
  peek(id: string): void;
}

function command(title: string, run: () => void): Command {
  return { id: title, title, run };
}

const DRIVES: readonly (readonly [string, LiveInput['kind']])[] = [
  ['Drive by time', 'time'],
  ['Drive by a sine', 'sine'],
  ['Drive by a ramp', 'ramp'],
  ['Drive by the pointer', 'pointer'],
];

export function inletMenu(editor: GraphEditor, at: InletAddress): Command[] {
  const { edits, graph } = editor.typed();
  if (Object.hasOwn(graph.ribbons, inletKey(at.node, at.inlet)))
    return [command('Disconnect', () => editor.do(editor.typed().disconnect(at)))];
  return [
    command('Make a parameter', () => editor.promote(at)),
    ...DRIVES.map(([title, kind]) => command(title, () => editor.promote(at, kind))),
    command('Reset', () => editor.do(edits.resetInletValue(at, at.inlet))),
  ];
}

export function cardMenu(editor: GraphEditor, actions: MenuActions, id: string): Command[] {
  const isGroup = editor.typed().graph.nodes[id]?.kind === GROUP_KIND;
  return [
    ...(isGroup ? [command('Open the group', () => editor.enter(id)), command('Ungroup', () => editor.unmakeGroup())] : []),
    command('Peek at it', () => actions.peek(id)),
    command('Preview', () => editor.togglePreviews(editor.chosen())),
    command('Swap for …', () => actions.swap()),
    command('Name', () => actions.name(id)),
    command('Duplicate', () => editor.duplicate()),
    command('Make a group', () => editor.makeGroup()),
    command('Surround by an area', () => editor.addArea()),
    command('Delete and reconnect', () => editor.remove()),
    command('Delete with its ribbons', () => editor.remove(editor.chosen(), false)),
  ];
}

export function remarkMenu(editor: GraphEditor, actions: MenuActions, id: string): Command[] {
  return [command('Name', () => actions.name(id)), command('Delete', () => editor.remove())];
}

export function ribbonMenu(editor: GraphEditor, actions: MenuActions, to: InletAddress, at: Point): Command[] {
  const { edits } = editor.typed();
  return [
    command('Insert a node …', () => actions.insert(to, at)),
    command('Make it straight', () => editor.do(edits.setBends(to, []))),
    command('Disconnect', () => editor.do(editor.typed().disconnect(to))),
  ];
}

export function groundMenu(editor: GraphEditor, actions: MenuActions, at: Point): Command[] {
  return [
    command('Find a node', () => actions.find(at)),
    command('Add a note', () => actions.note()),
    command('Select all', () => editor.selectAll()),
    command('Show all', () => actions.showAll()),
    ...(editor.group() === undefined ? [] : [command('Leave the group', () => editor.leave())]),
  ];
}
