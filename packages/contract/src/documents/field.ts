import { described, inert, object, optional, text, type TypeOf } from '../schema/schema';
import { GRAPH } from './graph';
import { head } from './head';
import { groups, LONGEST_SOURCE, parameters } from './material';

export const FIELD_VERSION = 1;

export const DISTANCE_FIELD = object({
  ...head('brelvin-field', FIELD_VERSION),
  surface: described(GRAPH, 'What gives the distance of each place; empty where there is a text.'),
  groups,
  parameters,
  text: optional(
    text(LONGEST_SOURCE),
    'Shading code in place of the graph, with a function `field`: from a place to the distance in metres, below 0 inside.',
  ),
  notes: inert(text(100_000)),
});

/** A scene without a polygon: a graph or shading code that says of each place how far the surface is, and which region’s it is. */
export interface DistanceField extends TypeOf<typeof DISTANCE_FIELD> {}
