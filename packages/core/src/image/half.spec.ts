import { halfBits, halfValue, LARGEST_HALF } from './half';

describe('Half floats', () => {
  it('hold every one of their own numbers', () => {
    for (let bits = 0; bits < 0x7c00; bits++) {
      expect(halfBits(halfValue(bits))).toBe(bits);
      if (bits > 0) expect(halfBits(-halfValue(bits))).toBe(bits | 0x8000);
    }
  });

  it('take the nearest, the even one between two', () => {
    expect(halfValue(halfBits(1 + 1 / 4096))).toBe(1);
    expect(halfValue(halfBits(1 + 3 / 2048))).toBe(1 + 1 / 512);
    expect(halfValue(halfBits(1 / 3))).toBeCloseTo(1 / 3, 3);
    expect(halfValue(halfBits(2 ** -25))).toBe(0);
    expect(halfValue(halfBits(2 ** -24 * 1.6))).toBe(2 ** -23);
  });

  it('hold what is beyond them as the largest, and what is no number as 0', () => {
    expect([1e9, Infinity, -1e9, NaN, 65_519].map((each) => halfValue(halfBits(each)))).toEqual([
      LARGEST_HALF,
      LARGEST_HALF,
      -LARGEST_HALF,
      0,
      LARGEST_HALF,
    ]);
    expect([halfValue(0x7c00), halfValue(0xfc00), halfValue(0x7e00)]).toEqual([Infinity, -Infinity, NaN]);
  });
});
