import { AsyncCache } from './async-cache';

describe('The last few things that were asked for', () => {
  it('are made once, the oldest forgotten, and what fails made again', async () => {
    const few = new AsyncCache<number>(2);
    let made = 0;
    const make = async (): Promise<number> => ++made;
    expect([await few.get('a', make), await few.get('a', make), await few.get('b', make)]).toEqual([1, 1, 2]);
    await few.keep('c', Promise.resolve(9));
    expect([await few.get('c', make), await few.get('a', make)]).toEqual([9, 3]);
    await expectAsync(few.get('d', () => Promise.reject(new Error('no')))).toBeRejectedWithError('no');
    expect(await few.get('d', make)).toBe(4);
  });

  it('are those that were used last', async () => {
    const few = new AsyncCache<string>(2);
    for (const key of ['a', 'b', 'a', 'c']) await few.get(key, async () => key);
    expect([few.now('a'), few.now('b'), few.now('c')]).toEqual(['a', undefined, 'c']);
  });

  it('weigh no more than the limit; what alone weighs more is kept until something else comes', async () => {
    const few = new AsyncCache<number>(10, (value) => value);
    for (const weight of [4, 5]) await few.get(`${weight}`, async () => weight);
    expect([few.now('4'), few.now('5')]).toEqual([4, 5]);
    await few.get('20', async () => 20);
    expect([few.now('4'), few.now('5'), few.now('20')]).toEqual([undefined, undefined, 20]);
    await few.get('1', async () => 1);
    expect([few.now('20'), few.now('1')]).toEqual([undefined, 1]);
  });

  it('are not there before they have come', async () => {
    const few = new AsyncCache<number>(1);
    const coming = few.get('a', async () => 1);
    expect(few.now('a')).toBeUndefined();
    await coming;
    expect(few.now('a')).toBe(1);
  });
});
