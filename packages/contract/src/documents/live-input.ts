import { described, number, object, oneOf, optional, type TypeOf } from '../schema/schema';
import { stops } from './values';

export const LIVE_KINDS = ['time', 'sine', 'ramp', 'pointer'] as const;

export const LIVE_INPUT = object({
  kind: oneOf(LIVE_KINDS),
  low: number(),
  high: number(),
  period: described(number(0, 86_400), 'Seconds.'),
  phase: described(number(0, 1), 'Of a period.'),
  speed: described(number(), 'Units a second.'),
  through: optional(stops, 'Of a colour: the gradient that it runs through, 0…1, in place of low and high.'),
});

/**
 * What moves a number by itself.
 *
 * - `time`: low + seconds × speed (units a second)
 * - `sine`: swings between low and high once in `period` seconds, starting at `phase` (0…1 of a period)
 * - `ramp`: runs from low to high in `period` seconds and starts again
 * - `pointer`: goes to high while the pointer is over the part, back to low when it leaves, in `period` seconds
 */
export interface LiveInput extends TypeOf<typeof LIVE_INPUT> {}
