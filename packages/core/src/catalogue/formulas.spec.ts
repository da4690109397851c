import { callNumber, callShader, callVector, oneLight, term } from '../testing/call-shader';

/** Closed forms of the formulas, evaluated by hand. */
/** The level of one of `count` bands whose borders are this soft. */
const bandLevel = (value: number, count: number, softness: number): number =>
  callNumber('bandLevel(float,float,float)', value, count, 1 / Math.min(Math.max(softness, 1e-4), 1));

describe('Formulas: numbers and colours', () => {
  it('divides by 0 to 0', () => {
    expect(callNumber('divideValues(float,float)', 1, 0)).toBe(0);
    expect(callVector('divideValues(vec3,vec3)', [6, 6, 6], [2, 0, -3])).toEqual([3, 0, -2]);
  });

  it('raises to powers, what is below 0 counting as 0', () => {
    expect(callNumber('powerOf(float,float)', 3, 2)).toBeCloseTo(9, 5);
    expect(callNumber('powerOf(float,float)', -2, 2)).toBe(0);
    expect(callNumber('powerOf(float,float)', 0, 0)).toBe(1);
    expect(callNumber('powerOf(float,float)', 0, 5)).toBe(0);
  });

  it('remaps, also beyond both ends and from an empty range', () => {
    expect(callNumber('remapValue(float,float,float,float,float)', 5, 0, 10, 100, 200)).toBeCloseTo(150, 4);
    expect(callNumber('remapValue(float,float,float,float,float)', -5, 0, 10, 100, 200)).toBeCloseTo(50, 4);
    expect(callNumber('remapValue(float,float,float,float,float)', 5, 3, 3, 100, 200)).toBe(100);
  });

  it('steps softly, and hard where the edges meet', () => {
    expect(callNumber('smoothStepBetween(float,float,float)', 0, 2, 0.5)).toBeCloseTo(0.15625, 6);
    expect(callNumber('smoothStepBetween(float,float,float)', 1, 1, 0.99)).toBe(0);
    expect(callNumber('smoothStepBetween(float,float,float)', 1, 1, 1)).toBe(1);
    expect(callNumber('smoothStepBetween(float,float,float)', 2, 0, 0.5)).toBeCloseTo(1 - 0.15625, 6);
  });

  it('weighs luminance by ITU-R BT.709', () => {
    expect(callNumber('luminanceOf(vec3)', [1, 0, 0])).toBeCloseTo(0.2126, 6);
    expect(callNumber('luminanceOf(vec3)', [0, 1, 0])).toBeCloseTo(0.7152, 6);
    expect(callNumber('luminanceOf(vec3)', [1, 1, 1])).toBeCloseTo(1, 6);
  });

  it('encodes sRGB by IEC 61966-2-1', () => {
    const encode = (value: number): number => callVector('srgbFromLinear(vec3)', [value, value, value])[0] ?? NaN;
    expect(encode(0)).toBe(0);
    expect(encode(0.0031308)).toBeCloseTo(0.04045, 4);
    expect(encode(0.214041)).toBeCloseTo(0.5, 4);
    expect(encode(1)).toBeCloseTo(1, 5);
  });

  it('hashes as the paper’s code does', () => {
    // pcg of Jarzynski and Olano 2020, computed with 32-bit integers in another language.
    expect(callNumber('pcgHash(uint)', 0)).toBe(129708002);
    expect(callNumber('pcgHash(uint)', 1)).toBe(2831084092);
  });

  it('dithers by less than half an 8-bit step', () => {
    let sum = 0;
    for (let x = 0; x < 20; x++) {
      const [value = NaN] = callVector('ditherAt(vec2)', [x * 3.5, x * 7.5]);
      expect(Math.abs(value)).toBeLessThanOrEqual(0.5 / 255 + 1e-9);
      sum += value;
    }
    expect(Math.abs(sum / 20)).toBeLessThan(0.3 / 255);
  });
});

describe('Formulas: gradient', () => {
  const at = (t: number, ...stops: number[][]): readonly number[] => {
    const all = Array.from({ length: 8 }, (_, index) => stops[Math.min(index, stops.length - 1)] ?? []);
    const value = callShader('gradientAt(float,vec4[8])', [t, { items: all }]);
    return value as readonly number[];
  };
  const black = [0, 0, 0, 0.25];
  const white = [1, 1, 1, 0.75];

  it('is flat outside its stops and linear between them', () => {
    expect(at(0, black, white)[0]).toBe(0);
    expect(at(0.25, black, white)[0]).toBe(0);
    expect(at(0.5, black, white)[0]).toBeCloseTo(0.5, 6);
    expect(at(0.9, black, white)[0]).toBe(1);
  });

  it('jumps where two stops share a place', () => {
    expect(at(0.49, [0, 0, 0, 0.5], [1, 1, 1, 0.5])[0]).toBe(0);
    expect(at(0.51, [0, 0, 0, 0.5], [1, 1, 1, 0.5])[0]).toBe(1);
  });
});

describe('Formulas: light', () => {
  const up = [0, 1, 0];
  const tilted = (degrees: number): number[] => [Math.sin((degrees * Math.PI) / 180), Math.cos((degrees * Math.PI) / 180), 0];

  it('Lambert reads 1 for white that faces a light of 1, and falls with the cosine', () => {
    const lit = (degrees: number): readonly number[] =>
      term(callShader('lambert(vec3,vec3)', [[1, 1, 1], up], oneLight(tilted(degrees))), 'diffuse');
    expect(lit(0)[0]).toBeCloseTo(1, 6);
    expect(lit(60)[0]).toBeCloseTo(0.5, 6);
    expect(lit(100)[0]).toBe(0);
  });

  it('holds the terms apart', () => {
    const lit = callShader(
      'blinnPhong(vec3,vec3,float,vec3,vec3)',
      [[0.5, 0.5, 0.5], [0.25, 0.25, 0.25], 16, up, up],
      oneLight(up, [2, 2, 2], [0.2, 0.4, 0.6]),
    );
    expect(term(lit, 'ambient')[1]).toBeCloseTo(0.2, 6);
    expect(term(lit, 'diffuse')[0]).toBeCloseTo(1, 6);
    expect(term(lit, 'specular')[0]).toBeCloseTo(0.5, 6);
    expect(term(lit, 'emission')).toEqual([0, 0, 0]);
  });

  it('Blinn-Phong falls with the half angle to the exponent', () => {
    const lit = callShader('blinnPhong(vec3,vec3,float,vec3,vec3)', [[0, 0, 0], [1, 1, 1], 10, up, up], oneLight(tilted(40)));
    expect(term(lit, 'specular')[0]).toBeCloseTo(Math.cos((20 * Math.PI) / 180) ** 10, 5);
  });

  it('Bands has as many levels as asked for, evenly spaced from the floor to full', () => {
    for (const count of [1, 2, 3, 5, 12]) {
      const levels = new Set<number>();
      for (let step = 0; step <= 400; step++) levels.add(Math.round(bandLevel(step / 400, count, 0) * 1e5) / 1e5);
      const inner = [...levels].sort((a, b) => a - b);
      const expected = count === 1 ? [1] : Array.from({ length: count }, (_, index) => Math.round((index / (count - 1)) * 1e5) / 1e5);
      expect(expected.every((level) => inner.includes(level)))
        .withContext(`${count} bands: ${inner.join()}`)
        .toBeTrue();
    }
    expect(bandLevel(-1, 4, 0)).toBe(0);
    expect(bandLevel(1, 4, 0)).toBe(1);
  });

  it('Bands never gets darker towards the light', () => {
    for (const softness of [0, 0.3, 1]) {
      let before = -1;
      for (let step = 0; step <= 300; step++) {
        const level = bandLevel(step / 300, 5, softness);
        expect(level).toBeGreaterThanOrEqual(before - 1e-6);
        before = level;
      }
    }
  });

  it('Bands tints only the shade', () => {
    const lit = (normal: number[]): readonly number[] =>
      term(callShader('bands(vec3,float,float,float,vec3,vec3)', [[1, 1, 1], 3, 0, 0.5, [1, 0.5, 0], normal], oneLight(up)), 'diffuse');
    expect(lit([0, 1, 0])).toEqual([1, 1, 1]);
    expect(lit([0, -1, 0])).toEqual([0.5, 0.25, 0]);
  });

  it('Rim is full where the surface turns away, and nothing where it faces the eye', () => {
    const lit = (normal: number[]): number =>
      term(callShader('rim(vec3,float,float,vec3,vec3)', [[1, 1, 1], 2, 3, normal, up]), 'emission')[0] ?? NaN;
    expect(lit([1, 0, 0])).toBeCloseTo(2, 5);
    expect(lit(up)).toBe(0);
    expect(lit(tilted(60))).toBeCloseTo(2 * 0.5 ** 3, 5);
  });

  it('light can be added, tinted and mixed term by term', () => {
    const lit = callShader('lambert(vec3,vec3)', [[1, 1, 1], up], oneLight(up, [1, 1, 1], [0.5, 0.5, 0.5]));
    const tinted = callShader('multiplyValues(Lit,vec3)', [lit, [1, 0.5, 0]]);
    expect(term(tinted, 'diffuse')).toEqual([1, 0.5, 0]);
    expect(term(tinted, 'ambient')).toEqual([0.5, 0.25, 0]);
    const mixed = callShader('mixValues(Lit,Lit,float)', [lit, tinted, 0.5]);
    expect(term(mixed, 'diffuse')[1]).toBeCloseTo(0.75, 6);
    expect(callShader('totalLight(Lit)', [lit as never])).toEqual([1.5, 1.5, 1.5]);
  });
});
