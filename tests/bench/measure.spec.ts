import { quantile, ratio, spread } from './measure';

describe('Measurements', () => {
  it('find medians and quartiles', () => {
    expect(quantile([1, 2, 3, 4], 0.5)).toBe(2.5);
    expect(spread([5, 1, 3, 2, 4])).toEqual({ median: 3, low: 2, high: 4 });
  });

  it('see that twice the work takes about twice as long', async () => {
    const spin = (turns: number) => (): void => {
      let x = 0;
      for (let turn = 0; turn < turns; turn++) x = Math.sin(x + turn);
      if (Number.isNaN(x)) throw new Error('unreachable');
    };
    const { median } = await ratio(9, spin(600_000), spin(300_000));
    expect(median).toBeGreaterThan(1.3);
    expect(median).toBeLessThan(3);
  });
});
