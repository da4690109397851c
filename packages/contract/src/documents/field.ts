import { described, object, text, type TypeOf } from '../schema/schema';
import { head } from './head';
import { LONGEST_SOURCE } from './material';

export const FIELD_VERSION = 1;

export const DISTANCE_FIELD = object({
  ...head('brelvin-field', FIELD_VERSION),
  text: described(text(LONGEST_SOURCE), 'Shading code with a function `field`: from a place to the distance in metres, below 0 inside.'),
});

/** A scene without a polygon: shading code that says of each place how far the surface is, and which region’s it is. */
export interface DistanceField extends TypeOf<typeof DISTANCE_FIELD> {}
