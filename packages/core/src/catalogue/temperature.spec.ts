import { temperatureColour } from './temperature';

describe('temperatureColour', () => {
  it('is nearly white at daylight, warm below and blue above', () => {
    const [red, green, blue] = temperatureColour(6500);
    expect(red).toBeCloseTo(1, 1);
    expect(green).toBeGreaterThan(0.93);
    expect(blue).toBeGreaterThan(0.9);
    expect(temperatureColour(2700)[2]).toBeLessThan(0.3);
    expect(temperatureColour(12_000)[0]).toBeLessThan(0.75);
  });

  // CIE 15:2004, table T.3: the Planckian radiator at 2856 K (illuminant A) has x 0.44757, y 0.40745.
  it('hits illuminant A', () => {
    const [red, green, blue] = temperatureColour(2856);
    const X = 0.4124564 * red + 0.3575761 * green + 0.1804375 * blue;
    const Y = 0.2126729 * red + 0.7151522 * green + 0.072175 * blue;
    const Z = 0.0193339 * red + 0.119192 * green + 0.9503041 * blue;
    expect(X / (X + Y + Z)).toBeCloseTo(0.44757, 2);
    expect(Y / (X + Y + Z)).toBeCloseTo(0.40745, 2);
  });

  it('holds on at both ends', () => {
    expect(temperatureColour(-4)).toEqual(temperatureColour(1000));
    expect(temperatureColour(1e9)).toEqual(temperatureColour(15_000));
    expect(temperatureColour(1000).every((each) => each >= 0 && each <= 1)).toBeTrue();
  });
});
