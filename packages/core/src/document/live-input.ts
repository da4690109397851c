import type { LiveInput } from '@brelvin/contract';

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
