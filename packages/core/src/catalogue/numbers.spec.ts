import { FRONT_FACING } from '../ir/builtin-variables';
import { callNumber, callShader, callVector } from '../testing/call-shader';
import { components, isStruct, type Value } from '../ir/value';

const UP = [0, 1, 0];
const field = (value: Value, name: string): number => (isStruct(value) ? (components(value.fields[name] ?? [])[0] ?? NaN) : NaN);
const steps = (from: number, to: number, count = 40): number[] =>
  Array.from({ length: count + 1 }, (_, index) => from + ((to - from) * index) / count);

describe('Numbers', () => {
  it('are rounded as their names say', () => {
    const cases = [-1.5, -0.25, 0, 0.25, 1.75];
    expect(cases.map((x) => callNumber('floorOf(float)', x))).toEqual([-2, -1, 0, 0, 1]);
    expect(cases.map((x) => callNumber('ceilOf(float)', x) + 0)).toEqual([-1, 0, 0, 1, 2]);
    expect(cases.map((x) => callNumber('roundOf(float)', x))).toEqual([-1, 0, 0, 0, 2]);
    expect(cases.map((x) => callNumber('fractOf(float)', x))).toEqual([0.5, 0.75, 0, 0.25, 0.75]);
    expect(cases.map((x) => callNumber('signOf(float)', x))).toEqual([-1, -1, 0, 1, 1]);
    expect(callVector('absoluteOf(vec3)', [-1, 0, 2])).toEqual([1, 0, 2]);
    expect(callNumber('quantised(float,float)', 0.7, 0.25)).toBe(0.5);
    expect(callNumber('quantised(float,float)', 0.5, 0)).toBe(0.5);
  });

  it('melt into each other within a width, and only there', () => {
    expect(callNumber('softMinimum(float,float,float)', 0, 1, 0.5)).toBe(0);
    expect(callNumber('softMinimum(float,float,float)', 0.5, 0.5, 0.4)).toBeCloseTo(0.4, 6);
    expect(callNumber('softMaximum(float,float,float)', 0.5, 0.5, 0.4)).toBeCloseTo(0.6, 6);
    for (const a of steps(-1, 1)) expect(callNumber('softMinimum(float,float,float)', a, 0, 0)).toBe(Math.fround(Math.min(a, 0)));
  });

  it('go round and round in a range', () => {
    expect(callNumber('moduloOf(float,float)', -0.25, 1)).toBe(0.75);
    expect(callNumber('moduloOf(float,float)', 3, 0)).toBe(0);
    for (const x of steps(-5, 5)) {
      const wrapped = callNumber('repeatBetween(float,float,float)', x, 2, 3);
      expect(wrapped).toBeGreaterThanOrEqual(2);
      expect(wrapped).toBeLessThanOrEqual(3);
    }
    expect([0, 0.25, 0.5, 0.75, 1].map((x) => callNumber('triangleWave(float,float)', x, 1))).toEqual([0, 0.5, 1, 0.5, 0]);
  });

  it('grow and shrink, and stay numbers where the formula has none', () => {
    expect(callNumber('squareRootOf(float)', 9)).toBe(3);
    expect(callNumber('squareRootOf(float)', -4)).toBe(0);
    expect(callNumber('logarithmOf(float)', Math.E)).toBeCloseTo(1, 6);
    expect(callNumber('exponentialOf(float)', 1)).toBeCloseTo(Math.E, 5);
    for (const x of steps(-3, 3)) expect(callNumber('logarithmOf(float)', callNumber('exponentialOf(float)', x))).toBeCloseTo(x, 4);
  });

  it('turn angles, and find them again', () => {
    for (const angle of steps(-1.5, 1.5)) {
      expect(callNumber('angleOfSine(float)', Math.sin(angle))).toBeCloseTo(angle, 3);
      expect(callNumber('slopeOf(float)', angle)).toBeCloseTo(Math.tan(angle), 3);
      expect(callNumber('angleOfPoint(float,float)', Math.sin(angle), Math.cos(angle))).toBeCloseTo(angle, 5);
      expect(callNumber('radiansOf(float)', callNumber('degreesOf(float)', angle))).toBeCloseTo(angle, 5);
    }
    expect(callNumber('angleOfCosine(float)', 2)).toBe(0);
    expect(callNumber('angleOfPoint(float,float)', 0, 0)).toBe(0);
    expect(callNumber('cosineOf(float)', Math.PI)).toBeCloseTo(-1, 6);
  });

  it('choose, sharply or softly', () => {
    expect([0.4, 0.6].map((x) => callNumber('aboveOf(float,float,float)', x, 0.5, 0))).toEqual([0, 1]);
    expect(callNumber('aboveOf(float,float,float)', 0.5, 0.5, 0.2)).toBeCloseTo(0.5, 5);
    expect(callVector('chosenOf(float,vec3,vec3)', 0, [1, 2, 3], [4, 5, 6])).toEqual([1, 2, 3]);
    expect(callVector('chosenOf(float,vec3,vec3)', 1, [1, 2, 3], [4, 5, 6])).toEqual([4, 5, 6]);
  });
});

describe('Directions', () => {
  it('cross, project and lie apart as in school', () => {
    expect(callVector('crossOf(vec3,vec3)', [1, 0, 0], UP)).toEqual([0, 0, 1]);
    expect(callVector('projectedOn(vec3,vec3)', [3, 4, 0], [0, 2, 0]).map((x) => Math.round(x * 1e5) / 1e5)).toEqual([0, 4, 0]);
    expect(callVector('projectedOn(vec3,vec3)', [3, 4, 0], [0, 0, 0])).toEqual([0, 0, 0]);
    expect(callNumber('angleBetween(vec3,vec3)', [1, 0, 0], UP)).toBeCloseTo(Math.PI / 2, 5);
    expect(callNumber('angleBetween(vec3,vec3)', UP, [0, -3, 0])).toBeCloseTo(Math.PI, 4);
    expect(callNumber('distanceOf(vec3,vec3)', [1, 2, 3], [1, 2, 5])).toBe(2);
  });

  it('turn round an axis counter-clockwise, keeping their length', () => {
    const turned = callVector('rotatedAbout(vec3,vec3,float)', [1, 0, 0], UP, Math.PI / 2);
    [0, 0, -1].forEach((each, axis) => expect(turned[axis]).toBeCloseTo(each, 5));
    const long = callVector('rotatedAbout(vec3,vec3,float)', [1, 2, 3], [0.3, -1, 0.2], 1.1);
    expect(Math.hypot(...long)).toBeCloseTo(Math.hypot(1, 2, 3), 4);
  });

  it('mirror, and bend by the law of Snellius', () => {
    const mirrored = callVector('reflectedOf(vec3,vec3)', [1, -1, 0], UP);
    [1, 1, 0].forEach((each, axis) => expect(mirrored[axis]).toBeCloseTo(each, 5));
    for (const angle of steps(0.05, 1.4, 10)) {
      const bent = callVector('refractedOf(vec3,vec3,float)', [Math.sin(angle), -Math.cos(angle), 0], UP, 1.5);
      expect(bent[0]! * 1.5).toBeCloseTo(Math.sin(angle), 4);
      expect(Math.hypot(...bent)).toBeCloseTo(1, 4);
    }
  });
});

describe('Fresnel', () => {
  const at = (signature: string, first: number, angle: number): number =>
    callNumber(signature, first, UP, [Math.sin(angle), Math.cos(angle), 0]);

  it('mirrors ((n − 1) / (n + 1))² head on, nothing of one kind at Brewster’s angle, and all of it edge on', () => {
    for (const ior of [1.2, 1.5, 2.4]) {
      expect(at('fresnelDielectric(float,vec3,vec3)', ior, 0)).toBeCloseTo(((ior - 1) / (ior + 1)) ** 2, 5);
      expect(at('fresnelDielectric(float,vec3,vec3)', ior, Math.PI / 2)).toBeCloseTo(1, 3);
      // At Brewster's angle only the other polarisation is left: half of its square.
      const brewster = Math.atan(ior);
      const rs =
        (Math.cos(brewster) - Math.sqrt(ior ** 2 - Math.sin(brewster) ** 2)) /
        (Math.cos(brewster) + Math.sqrt(ior ** 2 - Math.sin(brewster) ** 2));
      expect(at('fresnelDielectric(float,vec3,vec3)', ior, brewster)).toBeCloseTo((rs * rs) / 2, 5);
    }
  });

  it('of a conductor is that of a dielectric without extinction, and ((n − 1)² + k²) / ((n + 1)² + k²) head on', () => {
    const conductor = (eta: number, k: number, angle: number): number =>
      callVector('fresnelConductor(vec3,vec3,vec3,vec3)', [eta, eta, eta], [k, k, k], UP, [Math.sin(angle), Math.cos(angle), 0])[0] ?? NaN;
    for (const angle of steps(0, 1.5, 10))
      expect(conductor(1.5, 0, angle)).toBeCloseTo(at('fresnelDielectric(float,vec3,vec3)', 1.5, angle), 3);
    for (const [n, k] of [
      [0.18, 3.42],
      [1.37, 1.77],
    ] as const)
      expect(conductor(n, k, 0)).toBeCloseTo(((n - 1) ** 2 + k ** 2) / ((n + 1) ** 2 + k ** 2), 4);
  });

  it('is met by Schlick’s approximation at both ends and within a twentieth between', () => {
    for (const angle of steps(0, 1.57)) {
      const [near, exact] = [at('fresnelSchlick(float,vec3,vec3)', 0.04, angle), at('fresnelDielectric(float,vec3,vec3)', 1.5, angle)];
      expect(Math.abs(near - exact)).toBeLessThan(0.05);
    }
  });
});

describe('Microfacets', () => {
  it('face all ways together once: the projected distribution adds up to 1', () => {
    for (const roughness of [0.2, 0.5, 1]) {
      let sum = 0;
      const count = 4000;
      for (let index = 0; index < count; index++) {
        const angle = ((index + 0.5) / count) * (Math.PI / 2);
        sum +=
          callNumber('distributionGgx(float,float)', roughness, Math.cos(angle)) *
          Math.cos(angle) *
          Math.sin(angle) *
          2 *
          Math.PI *
          (Math.PI / 2 / count);
      }
      expect(sum).toBeCloseTo(1, 2);
    }
  });

  it('are all seen head on: a quarter is what is left of 1 / (4 cos cos)', () => {
    for (const roughness of [0.1, 0.5, 1]) expect(callNumber('visibilitySmith(float,float,float)', roughness, 1, 1)).toBeCloseTo(0.25, 5);
    expect(callNumber('visibilitySmith(float,float,float)', 1, 0.5, 0.5)).toBeCloseTo(0.5, 5);
  });
});

describe('Normals', () => {
  const facing = new Map<string, Value>([
    ['worldNormal', [0, 0, 1]],
    ['worldTangent', [1, 0, 0, 1]],
    ['worldPosition', [0, 0, 0]],
    [FRONT_FACING, [1]],
  ]);
  const fromMap = (map: readonly number[], x = 1, y = 1): readonly number[] =>
    components(callShader('normalFromMap(vec3,float,float,bool,bool)', [map, x, y], facing));

  it('stay with a flat map, lean along u with its red, and turn round with their strength', () => {
    [0, 0, 1].forEach((each, axis) => expect(fromMap([0.5, 0.5, 1])[axis]).toBeCloseTo(each, 5));
    const leaning = fromMap([1, 0.5, 1]);
    expect(leaning[0]).toBeCloseTo(Math.SQRT1_2, 4);
    expect(fromMap([1, 0.5, 1], -1)[0]).toBeCloseTo(-Math.SQRT1_2, 4);
    expect(fromMap([0.5, 1, 1])[1]).toBeCloseTo(Math.SQRT1_2, 4);
    expect(fromMap([0.5, 1, 1], 1, -1)[1]).toBeCloseTo(-Math.SQRT1_2, 4);
    expect(fromMap([0.5, 0.5, 0])).toEqual([0, 0, 1]);
  });

  it('blend so that either flat map changes nothing', () => {
    const bent = [0.7, 0.4, 0.94];
    const unitBent = bent.map((each) => each * 2 - 1);
    const length = Math.hypot(...unitBent);
    const wanted = unitBent.map((each) => (each / length) * 0.5 + 0.5);
    for (const [base, detail] of [
      [[0.5, 0.5, 1], bent],
      [bent, [0.5, 0.5, 1]],
    ] as const)
      callVector('blendNormalMaps(vec3,vec3)', base, detail).forEach((each, axis) => expect(each).toBeCloseTo(wanted[axis]!, 2));
  });

  it('stay where a height has no slope', () => {
    expect(components(callShader('normalFromHeight(float,float)', [3, 1], facing))).toEqual([0, 0, 1]);
  });
});

describe('Colours', () => {
  it('are adjusted without moving what is to stay', () => {
    expect(callVector('contrasted(vec3,float,float)', [0.18, 0.36, 0], 2, 0.18).map((x) => Math.round(x * 1e4) / 1e4)).toEqual([
      0.18, 0.54, -0.18,
    ]);
    const grey = callVector('saturated(vec3,float)', [1, 0, 0], 0);
    expect(grey.every((x) => Math.abs(x - 0.2126) < 1e-5)).toBeTrue();
    expect(callNumber('luminanceOf(vec3)', callVector('tinted(vec3,vec3,float)', [0.4, 0.2, 0.7], [0.9, 0.1, 0.1], 1))).toBeCloseTo(
      callNumber('luminanceOf(vec3)', [0.4, 0.2, 0.7]),
      5,
    );
    expect(callVector('levelled(vec3,float,float,float)', [0.2, 0.5, 0.8], 0.2, 0.8, 1).map((x) => Math.round(x * 1e4) / 1e4)).toEqual([
      0, 0.5, 1,
    ]);
    const poster = new Set(steps(0, 1, 200).map((x) => callVector('posterised(vec3,float)', [x, x, x], 4)[0]!.toFixed(4)));
    expect([...poster].sort()).toEqual(['0.0000', '0.3333', '0.6667', '1.0000']);
    expect(callVector('invertedOf(vec3)', [0, 0.25, 1])).toEqual([1, 0.75, 0]);
  });

  it('go to hue, saturation and value and back', () => {
    for (const colour of [
      [0.8, 0.1, 0.1],
      [0.1, 0.5, 0.2],
      [0.2, 0.2, 0.9],
      [0.3, 0.3, 0.3],
      [0.9, 0.8, 0.1],
    ]) {
      const parts = callShader('hsvFromColour(vec3)', [colour]);
      const back = callVector('colourFromHsv(float,float,float)', field(parts, 'hue'), field(parts, 'saturation'), field(parts, 'value'));
      colour.forEach((each, channel) => expect(back[channel]).toBeCloseTo(each, 5));
    }
    expect(field(callShader('hsvFromColour(vec3)', [[0, 1, 0]]), 'hue')).toBeCloseTo(1 / 3, 5);
  });

  // CSS Color 4, section 9: white has lightness 1 and no chroma; sRGB red is oklch(0.62796 0.25768 29.234deg).
  it('go to lightness, chroma and hue as CSS Color 4 says, and back', () => {
    const white = callShader('lchFromColour(vec3)', [[1, 1, 1]]);
    expect(field(white, 'lightness')).toBeCloseTo(1, 4);
    expect(field(white, 'chroma')).toBeLessThan(1e-3);
    const red = callShader('lchFromColour(vec3)', [[1, 0, 0]]);
    expect(field(red, 'lightness')).toBeCloseTo(0.62796, 3);
    expect(field(red, 'chroma')).toBeCloseTo(0.25768, 3);
    expect(field(red, 'hue') * 360).toBeCloseTo(29.234, 1);
    for (const colour of [
      [0.8, 0.1, 0.1],
      [0.02, 0.5, 0.2],
      [0.2, 0.2, 0.9],
    ]) {
      const parts = callShader('lchFromColour(vec3)', [colour]);
      const back = callVector('colourFromLch(float,float,float)', field(parts, 'lightness'), field(parts, 'chroma'), field(parts, 'hue'));
      colour.forEach((each, channel) => expect(back[channel]).toBeCloseTo(each, 3));
    }
  });

  it('mix evenly as seen: the ends stay, the middle is half as light', () => {
    const [a, b] = [
      [0.02, 0.02, 0.02],
      [0.9, 0.9, 0.9],
    ];
    const lightness = (colour: readonly number[]): number => field(callShader('lchFromColour(vec3)', [colour]), 'lightness');
    a.forEach((each, channel) => expect(callVector('mixedAsSeen(vec3,vec3,float)', a, b, 0)[channel]).toBeCloseTo(each, 4));
    expect(lightness(callVector('mixedAsSeen(vec3,vec3,float)', a, b, 0.5))).toBeCloseTo((lightness(a) + lightness(b)) / 2, 4);
  });

  it('are encoded by IEC 61966-2-1 and decoded again; palettes swing about their middle', () => {
    expect(callVector('srgbEncoded(vec3)', [0.2140411, 0, 1])[0]).toBeCloseTo(0.5, 4);
    for (const x of steps(0, 1)) expect(callVector('srgbDecoded(vec3)', callVector('srgbEncoded(vec3)', [x, x, x]))[0]).toBeCloseTo(x, 4);
    const palette = (at: number): readonly number[] =>
      callVector('cosinePalette(float,vec3,vec3,vec3,vec3)', at, [0.5, 0.5, 0.5], [0.5, 0.5, 0.5], [1, 1, 1], [0, 0.33, 0.67]);
    expect(palette(0)[0]).toBeCloseTo(1, 5);
    palette(1).forEach((each, channel) => expect(each).toBeCloseTo(palette(0)[channel]!, 4));
  });
});

describe('Power, sign kept', () => {
  it('is a power of the size, with the sign of the value', () => {
    const power = (a: number, b: number): number => callNumber('signedPower(float,float)', a, b);
    expect([power(3, 2), power(-3, 2), power(-8, 1 / 3)].map((each) => Math.round(each * 1e4) / 1e4)).toEqual([9, -9, -2]);
    expect(power(0, 0.5)).toBe(0);
  });
});
