import { PIXEL_PLACE } from '../ir/builtin-variables';
import { newRig } from '../document/new-documents';
import { components } from '../ir/value';
import { callShader, rigGlobals } from '../testing/call-shader';

const SIDE = 32;

/** The mean of a pattern over a square of the picture, ink 0 and paper 1. */
function mean(signature: string, ...rest: readonly (number | readonly number[])[]): number {
  const globals = new Map(rigGlobals(newRig('')));
  globals.set('targetSize', [SIDE, SIDE, 1 / SIDE, 1 / SIDE]);
  let sum = 0;
  for (let y = 0.5; y < SIDE; y++) {
    for (let x = 0.5; x < SIDE; x++) {
      globals.set(PIXEL_PLACE, [x, y, 0, 1]);
      sum += components(callShader(signature, rest, globals))[0] ?? NaN;
    }
  }
  return sum / SIDE ** 2;
}

const grey = (value: number): readonly number[] => [value, value, value];
const INK = grey(0);
const PAPER = grey(1);

describe('Ink', () => {
  it('halftone covers as much as it is dark, on a straight grid and a turned one', () => {
    for (const angle of [0, Math.PI / 4]) {
      for (const light of [0.1, 0.4, 0.8]) {
        expect(mean('halftone(vec3,float,float,vec3,vec3)', grey(light), 16, angle, INK, PAPER))
          .withContext(`${light} at ${angle}`)
          .toBeCloseTo(light, 1);
      }
    }
  });

  it('halftone leaves white paper white and fills black', () => {
    expect(mean('halftone(vec3,float,float,vec3,vec3)', grey(1), 16, 0, INK, PAPER)).toBeGreaterThan(0.99);
    expect(mean('halftone(vec3,float,float,vec3,vec3)', grey(0), 16, 0, INK, PAPER)).toBeLessThan(0.01);
  });

  it('hatching only adds strokes as it gets darker', () => {
    let before = 2;
    for (const light of [1, 0.75, 0.6, 0.4, 0.2, 0]) {
      const paper = mean('hatching(vec3,float,float,float,vec3,vec3)', grey(light), 12, 0.6, 0.4, INK, PAPER);
      expect(paper)
        .withContext(`${light}`)
        .toBeLessThanOrEqual(before + 1e-9);
      before = paper;
    }
    expect(mean('hatching(vec3,float,float,float,vec3,vec3)', grey(1), 12, 0.6, 0.4, INK, PAPER)).toBe(1);
    expect(before).toBeLessThan(0.4);
  });

  it('is as large in the picture while it is drawn small', () => {
    const globals = new Map(rigGlobals(newRig('')));
    const at = (x: number, pixels: number): readonly number[] => {
      globals.set('targetSize', [SIDE, SIDE, 1 / pixels, 1 / pixels]);
      globals.set(PIXEL_PLACE, [x, 3, 0, 1]);
      return components(callShader('inkCell(float,float)', [8, 0], globals));
    };
    expect(at(8, 16)[0]).toBeCloseTo(at(16, 32)[0] ?? NaN, 6);
  });
});
