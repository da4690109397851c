import { described, flag, inert, list, number, object, optional, record, text, tunable, tuple, whole, type TypeOf } from '../schema/schema';
import { identifier, LONGEST_NAME, name } from './names';
import { byId, inletValue } from './values';

const FARTHEST = 1e6;
/** Graph units, one unit a CSS pixel at zoom 1. */
const place = number(-FARTHEST, FARTHEST);
const extent = number(1, FARTHEST);
const box = { x: place, y: place, width: extent, height: extent };

export const GRAPH_NODE = object({
  kind: described(identifier, 'Id of a node kind of the catalogue.'),
  rev: whole(1, 1e6),
  x: inert(described(place, 'Graph units, one unit a CSS pixel at zoom 1.')),
  y: inert(place),
  values: tunable(described(byId(inletValue, 64), 'Values typed into inlets, by inlet.')),
  factors: tunable(optional(byId(inletValue, 64), 'By inlet: what the value that a ribbon brings is multiplied by; 1 where absent.')),
  name: inert(optional(name, 'In place of the kind’s title.')),
  preview: inert(optional(flag, 'Whether it shows a small picture of its first outlet.')),
  parameter: optional(identifier, 'Of kind `parameter`: which one it reads.'),
  group: optional(identifier, 'Of kind `group`: whose inside it stands for.'),
  code: optional(text(20_000), 'Functions, of which the last one is the node.'),
  image: optional(identifier, 'Of kind `image`: which of the material’s images it reads.'),
  features: optional(list(identifier, 1, 32), 'Features of its kind that are on.'),
});

export const RIBBON = object({
  from: identifier,
  outlet: identifier,
  bends: inert(optional(list(tuple(place, 2), 1, 64), 'Points it runs through on its way, x and y.')),
});
export const AREA = object({ title: text(LONGEST_NAME), ...box });
export const NOTE = object({ text: text(10_000), ...box });

export const graphFields = {
  nodes: byId(GRAPH_NODE, 10_000),
  ribbons: described(
    record(RIBBON, 50_000, '^[A-Za-z][A-Za-z0-9_-]{0,63}\\.[A-Za-z][A-Za-z0-9_-]{0,63}$'),
    'By the inlet where the ribbon ends: "node.inlet", or "dock.inlet".',
  ),
  areas: inert(byId(AREA, 1000)),
  notes: inert(byId(NOTE, 1000)),
};

export const GRAPH = object(graphFields);

/** A node where it lies on the graph. */
export interface GraphNode extends TypeOf<typeof GRAPH_NODE> {}

/** Runs from an outlet of a node. Where it arrives is its key: `node.inlet`, or `dock.inlet`. */
export interface Ribbon extends TypeOf<typeof RIBBON> {}

/** A titled region behind the nodes; graph units. */
export interface Area extends TypeOf<typeof AREA> {}

/** Words on the graph; graph units. */
export interface Note extends TypeOf<typeof NOTE> {}

/** Nodes by id, ribbons by the inlet they end in: an inlet takes one ribbon, which the form makes certain. */
export interface Graph extends TypeOf<typeof GRAPH> {}
