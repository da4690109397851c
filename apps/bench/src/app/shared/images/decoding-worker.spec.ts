import { FewPromises } from './decoding-worker';

describe('The last few things that were asked for', () => {
  it('are made once, the oldest forgotten, and what fails made again', async () => {
    const few = new FewPromises<number>(2);
    let made = 0;
    const make = async (): Promise<number> => ++made;
    expect([await few.get('a', make), await few.get('a', make), await few.get('b', make)]).toEqual([1, 1, 2]);
    await few.keep('c', Promise.resolve(9));
    expect([await few.get('c', make), await few.get('a', make)]).toEqual([9, 3]);
    await expectAsync(few.get('d', () => Promise.reject(new Error('no')))).toBeRejectedWithError('no');
    expect(await few.get('d', make)).toBe(4);
  });
});
