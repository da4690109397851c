import { hexFromLinear, hsvFromSrgb, linearFromHex, linearFromSrgb, srgbFromHsv, srgbFromLinear } from './colour-space';

describe('Colour spaces', () => {
  it('encodes and decodes sRGB by IEC 61966-2-1', () => {
    expect(srgbFromLinear(0.0031308)).toBeCloseTo(0.04045, 5);
    expect(linearFromSrgb(0.5)).toBeCloseTo(0.21404114, 7);
    for (let step = -10; step <= 30; step++) expect(linearFromSrgb(srgbFromLinear(step / 10))).toBeCloseTo(step / 10, 6);
  });

  it('reads and writes hex', () => {
    expect(hexFromLinear([1, 0, 0.2159])).toBe('#ff0080');
    expect(hexFromLinear([5, -1, 0])).toBe('#ff0000');
    expect(linearFromHex('#fff')).toEqual([1, 1, 1]);
    expect(linearFromHex('FF0080')?.[2]).toBeCloseTo(0.2158605, 6);
    for (const text of ['', '#12', '#12345', 'red', '#gggggg']) expect(linearFromHex(text)).toBeUndefined();
    for (const hex of ['#000000', '#123456', '#fedcba', '#808080']) expect(hexFromLinear(linearFromHex(hex) ?? [])).toBe(hex);
  });

  it('turns hue, saturation and value round', () => {
    expect(hsvFromSrgb([1, 0, 0])).toEqual([0, 1, 1]);
    expect(hsvFromSrgb([0.5, 0.5, 0.5])).toEqual([0, 0, 0.5]);
    for (const colour of [
      [0.2, 0.7, 0.4],
      [0.9, 0.1, 0.8],
      [0.1, 0.1, 0.9],
    ] as const) {
      srgbFromHsv(hsvFromSrgb(colour)).forEach((each, index) => expect(each).toBeCloseTo(colour[index] ?? 0, 9));
    }
  });
});
