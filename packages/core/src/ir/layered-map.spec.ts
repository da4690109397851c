import { LayeredMap } from './layered-map';

describe('A layered map', () => {
  it('is like a copy of its base to which the same was added', () => {
    const base = new Map([
      ['a', 1],
      ['b', 2],
      ['c', 3],
    ]);
    const [layered, copied] = [new LayeredMap(base), new Map(base)];
    for (const [key, value] of [
      ['d', 4],
      ['b', 20],
      ['d', 40],
      ['e', 5],
    ] as const) {
      layered.set(key, value);
      copied.set(key, value);
    }
    expect([...layered]).toEqual([...copied]);
    expect([...layered.keys()]).toEqual([...copied.keys()]);
    expect([...layered.values()]).toEqual([...copied.values()]);
    expect(layered.size).toBe(copied.size);
    const seen: unknown[] = [];
    layered.forEach((value, key) => seen.push([key, value]));
    expect(seen).toEqual([...copied]);
    expect(['a', 'b', 'e', 'z'].map((key) => [layered.has(key), layered.get(key)])).toEqual(
      ['a', 'b', 'e', 'z'].map((key) => [copied.has(key), copied.get(key)]),
    );
    expect([...base.values()]).toEqual([1, 2, 3]);
  });
});
