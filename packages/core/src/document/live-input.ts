import type { InletValue, LiveInput, MaterialParameter } from '@brelvin/contract';
import { colourOfStops, movedStops } from './stops';

export const STILL_LIVE_INPUT: Omit<LiveInput, 'kind'> = { low: 0, high: 1, period: 2, phase: 0, speed: 1 };

const SHORTEST = 1e-3;

/**
 * The number a live input gives now.
 *
 * @param pointer how far the pointer counts as over the part, 0…1, eased over so many seconds
 */
export function liveNumber(live: LiveInput, seconds: number, pointer: (period: number) => number): number {
  const { kind, low, high, phase, speed } = live;
  const period = Math.max(live.period, SHORTEST);
  const between = (part: number): number => low + (high - low) * part;
  switch (kind) {
    case 'time':
      return low + seconds * speed;
    case 'sine':
      return between(0.5 + 0.5 * Math.sin(2 * Math.PI * (seconds / period + phase)));
    case 'ramp': {
      const part = (seconds / period + phase) % 1;
      return between(part < 0 ? part + 1 : part);
    }
    case 'pointer':
      return between(pointer(live.period));
  }
}

/**
 * The value of a parameter that something moves: a colour runs through its gradient, a gradient's places move along by the
 * number, a number is the number.
 */
export function liveValue(
  { type, value }: Pick<MaterialParameter, 'type' | 'value'>,
  live: LiveInput,
  seconds: number,
  pointer: (period: number) => number,
): InletValue {
  const numbers = typeof value === 'number' ? [value] : value;
  if (type === 'stops') return movedStops(numbers, liveNumber(live, seconds, pointer));
  if (type !== 'colour') return liveNumber(live, seconds, pointer);
  const part = liveNumber(live.kind === 'time' ? live : { ...live, low: 0, high: 1 }, seconds, pointer);
  return colourOfStops(live.through ?? throughWhite(numbers), live.kind === 'time' ? part - Math.floor(part) : part);
}

/** From a colour to white: what a colour runs through until another gradient is chosen. */
export function throughWhite([red = 0, green = red, blue = red]: readonly number[]): readonly number[] {
  return [red, green, blue, 0, 1, 1, 1, 1];
}
