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

export function inletMenu(work: GraphEditor, at: InletAddress): Command[] {
  const { edits, graph } = work.typed();
  if (Object.hasOwn(graph.ribbons, inletKey(at.node, at.inlet)))
    return [command('Take the ribbon off', () => work.do(edits.disconnect(at)))];
  return [
    command('Make a parameter', () => work.promote(at)),
    ...DRIVES.map(([title, kind]) => command(title, () => work.promote(at, kind))),
    command('Reset', () => work.do(edits.resetInletValue(at, at.inlet))),
  ];
}

export function cardMenu(work: GraphEditor, hands: MenuActions, id: string): Command[] {
  const isGroup = work.typed().graph.nodes[id]?.kind === GROUP_KIND;
  return [
    ...(isGroup ? [command('Open the group', () => work.enter(id)), command('Unmake the group', () => work.unmakeGroup())] : []),
    command('Peek at it', () => hands.peek(id)),
    command('Small picture', () => work.togglePreviews(work.chosen())),
    command('Swap for …', () => hands.swap()),
    command('Name', () => hands.name(id)),
    command('Duplicate', () => work.duplicate()),
    command('Make a group', () => work.makeGroup()),
    command('Surround by an area', () => work.addArea()),
    command('Delete, closing the gap', () => work.remove()),
    command('Delete with its ribbons', () => work.remove(work.chosen(), false)),
  ];
}

export function remarkMenu(work: GraphEditor, hands: MenuActions, id: string): Command[] {
  return [command('Name', () => hands.name(id)), command('Delete', () => work.remove())];
}

export function ribbonMenu(work: GraphEditor, hands: MenuActions, to: InletAddress, at: Point): Command[] {
  const { edits } = work.typed();
  return [
    command('Insert a node …', () => hands.insert(to, at)),
    command('Make it straight', () => work.do(edits.setBends(to, []))),
    command('Take the ribbon off', () => work.do(edits.disconnect(to))),
  ];
}

export function groundMenu(work: GraphEditor, hands: MenuActions, at: Point): Command[] {
  return [
    command('Find a node', () => hands.find(at)),
    command('Add a note', () => hands.note()),
    command('Choose everything', () => work.selectAll()),
    command('Show all', () => hands.showAll()),
    ...(work.group() === undefined ? [] : [command('Leave the group', () => work.leave())]),
  ];
}
