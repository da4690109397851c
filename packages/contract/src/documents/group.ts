import { described, flag, inert, number, object, oneOf, optional, text, type TypeOf } from '../schema/schema';
import { GRAPH } from './graph';
import { name } from './names';
import { RIBBON_TYPES } from './ribbon-types';
import { byId, inletValue } from './values';

export const GROUP_PORT = object({
  label: inert(name),
  type: oneOf(RIBBON_TYPES),
  order: inert(number()),
  value: optional(inletValue, 'What an open inlet gives; without it the nodes inside take their own values.'),
  low: inert(optional(number())),
  high: inert(optional(number())),
});

export const NODE_GROUP = object({
  title: inert(name),
  help: inert(text(1000)),
  eachLight: optional(flag, 'Computed once for each light of the rig; what leaves is the sum.'),
  inlets: byId(GROUP_PORT, 64),
  outlets: byId(GROUP_PORT, 64),
  graph: described(GRAPH, 'What comes in runs from the node `entry`, by inlet id; what goes out runs into `dock`, by outlet id.'),
});

/** A place where a ribbon enters a group, or leaves it. */
export interface GroupPort extends TypeOf<typeof GROUP_PORT> {}

/** A graph inside a graph, which any number of nodes of kind `group` stand for. */
export interface NodeGroup extends TypeOf<typeof NODE_GROUP> {}
