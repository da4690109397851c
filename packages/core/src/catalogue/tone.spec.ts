import { callVector } from '../testing/call-shader';

const grey = (name: string, value: number): number => callVector(`${name}(vec3)`, [value, value, value])[0] ?? NaN;

describe('Tone curves', () => {
  it('Reinhard: half way at 1, and never quite 1', () => {
    expect(grey('reinhardCurve', 1)).toBeCloseTo(0.5, 6);
    expect(grey('reinhardCurve', 3)).toBeCloseTo(0.75, 6);
    expect(grey('reinhardCurve', 1e6)).toBeLessThan(1);
  });

  // Values of Narkowicz's fit, by hand.
  it('ACES fit: by its published coefficients', () => {
    expect(grey('acesCurve', 1)).toBeCloseTo(2.54 / 3.16, 5);
    expect(grey('acesCurve', 0.18)).toBeCloseTo((0.18 * (2.51 * 0.18 + 0.03)) / (0.18 * (2.43 * 0.18 + 0.59) + 0.14), 5);
    expect(grey('acesCurve', 100)).toBe(1);
  });

  // Khronos PBR Neutral specification: colours up to 0.8 − 0.04 keep their hue and are only shifted by the F90 offset.
  it('Khronos PBR Neutral: shifts by 0.04, then presses into what is left, then bleaches', () => {
    expect(grey('neutralCurve', 0.5)).toBeCloseTo(0.46, 5);
    expect(grey('neutralCurve', 0.04)).toBeCloseTo(0.04 - (0.04 - 6.25 * 0.04 ** 2), 6);
    const peak = 2 - 0.04;
    expect(grey('neutralCurve', 2)).toBeCloseTo(1 - 0.24 ** 2 / (peak + 0.24 - 0.76), 4);
    const [red = 0, green = 0] = callVector('neutralCurve(vec3)', [20, 0, 0]);
    expect(red).toBeLessThanOrEqual(1);
    expect(green).withContext('very bright red bleaches').toBeGreaterThan(0.5);
    const dull = callVector('neutralCurve(vec3)', [0.6, 0.3, 0.1]);
    expect((dull[0] ?? 0) - (dull[1] ?? 0))
      .withContext('differences stay below the shoulder')
      .toBeCloseTo(0.3, 5);
  });

  it('are all between 0 and 1, never fall, and begin at black', () => {
    for (const curve of [0, 1, 2, 3]) {
      let before = -1;
      for (const value of [0, 1e-4, 0.02, 0.1, 0.4, 0.76, 0.9, 1, 2, 8, 64, 1e4]) {
        const [shown = NaN] = callVector('toneCurve(vec3,float)', [value, value, value], curve);
        expect(shown).withContext(`${curve} at ${value}`).toBeGreaterThanOrEqual(before);
        expect(shown).toBeLessThanOrEqual(1);
        before = shown;
      }
      expect(callVector('toneCurve(vec3,float)', [-3, 0, 0], curve)[0]).toBe(0);
    }
  });
});
