import type { StageEngine } from '../stage/stage-engine';
import type { ProbedOutlets } from '../stage/outlet-lens';
import { lensMode } from './outlet-inspector';
import { MOST_PINS, Probes } from './probes';
import { numberWords, valueWords } from './value-words';

describe('Words for values', () => {
  it('keep three digits, whatever the size', () => {
    expect([0, 0.12345, 1.2345, 12.345, 123.45, -0.5].map(numberWords)).toEqual(['0.000', '0.123', '1.23', '12.3', '123', '−0.500']);
    expect([1e7, 1e-5, Infinity, NaN].map(numberWords)).toEqual(['1.0e+7', '1.0e−5', '∞', 'no number']);
  });

  it('show as many numbers as the type has', () => {
    expect(valueWords([1, 2, 3, 1], 'colour')).toBe('1.00 2.00 3.00');
    expect(valueWords([0.5, 0.5, 0.5, 0.5], 'number')).toBe('0.500');
  });
});

describe('How a value is seen at first', () => {
  it('goes by its type and what it means', () => {
    expect([lensMode('number', 'number'), lensMode('vec3', 'normal'), lensMode('colour', 'colour'), lensMode('vec3', 'position')]).toEqual([
      'scale',
      'direction',
      'colour',
      'colour',
    ]);
  });
});

describe('Pins', () => {
  let work: Probes;
  let seen: ProbedOutlets | undefined;
  const engine = {
    canProbe: true,
    probe: () => Promise.resolve(seen),
    placeOf: () => ({ x: 5, y: 5 }),
  } as unknown as StageEngine;
  const point = (x: number, value = x): ProbedOutlets => ({
    position: [x, 0, 0],
    copy: 0,
    values: new Map([['n.result', [value, 0, 0, 1]]]),
  });

  beforeEach(() => (work = new Probes()));

  async function place(...xs: number[]): Promise<void> {
    for (const x of xs) {
      seen = point(x);
      await work.pin(engine, x, 0);
    }
  }

  it('are three at most; the oldest makes room, and numbers are used again', async () => {
    await place(1, 2, 3);
    expect(work.pins().map(({ number }) => number)).toEqual([1, 2, 3]);
    await place(4);
    expect(work.pins().length).toBe(MOST_PINS);
    expect(work.pins().map(({ number, position }) => [number, position[0]])).toEqual([
      [2, 2],
      [3, 3],
      [1, 4],
    ]);
  });

  it('say why there is none where the material is not seen', async () => {
    seen = undefined;
    await work.pin(engine, 1, 1);
    expect(work.pins()).toEqual([]);
    expect(work.refusal()).toContain('No part there has this material');
  });

  it('are read again, and keep their values while something else hides them', async () => {
    await place(1);
    seen = point(1, 9);
    await work.refresh(engine);
    expect(work.pins()[0]?.values.get('n.result')?.[0]).toBe(9);
    seen = point(40, 7);
    await work.refresh(engine);
    expect(work.pins()[0]).toEqual(jasmine.objectContaining({ hidden: true, position: [1, 0, 0] }));
    expect(work.pins()[0]?.values.get('n.result')?.[0]).toBe(9);
  });

  it('are not lost while the pointer moves and other presses come', async () => {
    seen = point(1);
    const first = work.pin(engine, 1, 0);
    void work.pin(engine, 2, 0);
    void work.followPointer(engine, 3, 0);
    void work.refresh(engine);
    void work.followPointer(engine, 4, 0);
    await first;
    await new Promise((resolve) => setTimeout(resolve, 20));
    expect(work.pins().length).toBe(2);
    expect(work.points().length).toBe(3);
  });

  it('follow the pointer beside those that stay, until it leaves', async () => {
    await place(1);
    seen = point(2);
    await work.followPointer(engine, 2, 2);
    expect(work.points().map(({ number }) => number)).toEqual([1, 0]);
    work.leavePointer();
    expect(work.points().length).toBe(1);
    work.clear();
    expect(work.points()).toEqual([]);
  });
});
