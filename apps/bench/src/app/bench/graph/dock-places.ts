import type { RibbonType } from '@brelvin/contract';
import { DOCK, ENTRY, inletKey, type TypedGraph } from '@brelvin/core';
import { NEW_PORT } from './gestures/run-ribbon';
import { portsInOrder } from '../editors/placed-graph';

/** A place at the edge of a graph where ribbons arrive or start. */
export interface EdgePlace {
  readonly node: string;
  readonly name: string;
  readonly side: 'inlet' | 'outlet';
  readonly label: string;
  readonly type: RibbonType;
  readonly connected: boolean;
  readonly help: string;
}

/** Where results arrive: at the Stage's edge, or a group's outlets and a place for one more. */
export function dockPlaces({ group, material, graph, resolved }: TypedGraph): EdgePlace[] {
  const connected = (name: string): boolean => Object.hasOwn(graph.ribbons, inletKey(DOCK, name));
  const base = { node: DOCK, side: 'inlet' } as const;
  if (group === undefined) {
    return resolved.dock.map(({ type, spec: { name, label, help } }) => ({
      ...base,
      name,
      label,
      help,
      type,
      connected: connected(name),
    }));
  }
  const ports = portsInOrder(material.groups[group]?.outlets ?? {}).map(([name, { label, type }]) => ({
    ...base,
    name,
    label,
    type,
    connected: connected(name),
    help: 'Goes out of the group.',
  }));
  const more = {
    ...base,
    name: NEW_PORT,
    label: '+',
    type: 'number',
    connected: false,
    help: 'Set a ribbon down here for one more outlet.',
  } as const;
  return [...ports, more];
}

/** Where ribbons come into a group, and a place for one more. */
export function entryPlaces({ group, material, graph }: TypedGraph): EdgePlace[] {
  if (group === undefined) return [];
  const used = new Set(Object.values(graph.ribbons).flatMap((ribbon) => (ribbon.from === ENTRY ? [ribbon.outlet] : [])));
  const base = { node: ENTRY, side: 'outlet' } as const;
  const ports = portsInOrder(material.groups[group]?.inlets ?? {}).map(([name, { label, type }]) => ({
    ...base,
    name,
    label,
    type,
    connected: used.has(name),
    help: 'Comes into the group.',
  }));
  const more = {
    ...base,
    name: NEW_PORT,
    label: '+',
    type: 'number',
    connected: false,
    help: 'Set a ribbon from an inlet down here for one more inlet.',
  } as const;
  return [...ports, more];
}
