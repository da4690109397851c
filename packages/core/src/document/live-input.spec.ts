import type { LiveInput } from '@brelvin/contract';
import { liveNumber, liveValue, STILL_LIVE_INPUT } from './live-input';

describe('Live inputs', () => {
  const live = (kind: LiveInput['kind'], rest: Partial<LiveInput> = {}): LiveInput => ({
    ...STILL_LIVE_INPUT,
    kind,
    low: 2,
    high: 6,
    ...rest,
  });
  const at = (input: LiveInput, seconds: number, pointer = 0): number => liveNumber(input, seconds, () => pointer);

  it('count time from low at a speed', () => expect(at(live('time', { speed: 3 }), 4)).toBe(14));

  it('swing between low and high once a period', () => {
    const sine = live('sine', { period: 8 });
    expect([0, 2, 4, 6].map((seconds) => at(sine, seconds))).toEqual([4, 6, jasmine.any(Number) as never, 2]);
    expect(at(sine, 4)).toBeCloseTo(4, 10);
    expect(at(live('sine', { period: 8, phase: 0.25 }), 0)).toBe(6);
  });

  it('run from low to high and start again, backwards in time too', () => {
    const ramp = live('ramp', { period: 4 });
    expect([0, 1, 3, 4, -1].map((seconds) => at(ramp, seconds))).toEqual([2, 3, 5, 2, 5]);
  });

  it('follow the pointer', () => expect([0, 0.5, 1].map((pointer) => at(live('pointer'), 0, pointer))).toEqual([2, 4, 6]));

  it('take a colour through a gradient, from its own colour to white without one', () => {
    const colour = { type: 'colour', value: [0.5, 0, 0] } as const;
    const valueAt = (input: LiveInput, seconds: number): number[] => liveValue(colour, input, seconds, () => 0) as number[];
    const red = live('ramp', { period: 4, through: [1, 0, 0, 0, 0, 0, 1, 1] });
    expect(valueAt(red, 0)).toEqual([1, 0, 0]);
    expect(valueAt(red, 1)).toEqual([0.75, 0, 0.25]);
    expect(valueAt(live('ramp', { period: 4 }), 2)).toEqual([0.75, 0.5, 0.5]);
    // Time starts again at the gradient's end.
    expect(valueAt(live('time', { low: 0, speed: 0.5, through: red.through }), 2.5)).toEqual([0.75, 0, 0.25]);
  });

  it('move the places of a gradient', () => {
    const gradient = { type: 'stops', value: [1, 0, 0, 0, 0, 0, 1, 1] } as const;
    expect(liveValue(gradient, live('ramp', { low: 0, high: 1, period: 4 }), 1, () => 0)).toEqual([1, 0, 0, 0.25, 0, 0, 1, 1.25]);
  });

  it('stay finite without a period', () => expect(Number.isFinite(at(live('sine', { period: 0 }), 1.5))).toBeTrue());
});
