import { FRONT_FACING } from '../ir/builtin-variables';
import { components, isStruct, type Value } from '../ir/value';
import { callNumber, callShader, callVector, oneLight } from '../testing/call-shader';

const field = (value: Value, name: string): number => (isStruct(value) ? (components(value.fields[name] ?? [])[0] ?? NaN) : NaN);

describe('What one types', () => {
  it('comes out as it is', () => {
    expect(callNumber('numberOf(float)', -2.5)).toBe(-2.5);
    expect(callVector('vectorOf(vec3)', [1, -2, 3])).toEqual([1, -2, 3]);
    expect([0, 1].map((state) => callNumber('stateOf(float)', state))).toEqual([0, 1]);
  });

  it('turns round, and changes its sign', () => {
    expect(callVector('oneMinus(vec3)', [0, 0.25, 1])).toEqual([1, 0.75, 0]);
    expect(callVector('negated(vec2)', [1, -2])).toEqual([-1, 2]);
  });
});

describe('Terms of lighting by hand', () => {
  const up = [0, 1, 0];
  const cosines = (toLight: readonly number[]): [number, number] => {
    const found = callShader('nDotL(vec3,vec3)', [up, toLight]);
    return [field(found, 'facing'), field(found, 'whole')];
  };

  it('N·L is Lambert’s cosine, held at 0 or signed', () => {
    expect(cosines([0, 1, 0])).toEqual([1, 1]);
    expect(cosines([0, -1, 0])).toEqual([0, -1]);
    const slant = Math.cos(Math.PI / 3);
    for (const each of cosines([Math.sin(Math.PI / 3), slant, 0])) expect(each).toBeCloseTo(slant, 6);
  });

  it('the half vector is as far from the light as from the eye, of unit length; 0 where they are opposite', () => {
    const [light, eye] = [
      [0.6, 0.8, 0],
      [0, 0.6, 0.8],
    ];
    const half = callVector('halfVector(vec3,vec3)', light, eye);
    const dot = (a: readonly number[], b: readonly number[]): number => a.reduce((sum, each, index) => sum + each * (b[index] ?? 0), 0);
    expect(Math.hypot(...half)).toBeCloseTo(1, 6);
    expect(dot(half, light)).toBeCloseTo(dot(half, eye), 6);
    expect(callVector('halfVector(vec3,vec3)', [0, 1, 0], [0, -1, 0])).toEqual([0, 0, 0]);
  });

  it('N·H is 1 where the surface mirrors the light into the eye', () => {
    expect(callNumber('nDotH(vec3,vec3,vec3)', up, [0.6, 0.8, 0], [-0.6, 0.8, 0])).toBeCloseTo(1, 6);
    expect(callNumber('nDotH(vec3,vec3,vec3)', up, [0, -1, 0], [0, -1, 0])).toBe(0);
  });

  it('the light’s direction is the sun’s', () => {
    const found = components(callShader('directionToSun()', [], oneLight([0, 0.6, 0.8])));
    [0, 0.6, 0.8].forEach((each, axis) => expect(found[axis]).toBeCloseTo(each, 6));
  });

  it('the side that is seen is 1 in front, 0 at the back', () => {
    const side = (front: number): Value => callShader('frontSide()', [], new Map([[FRONT_FACING, [front]]]));
    expect([components(side(1))[0], components(side(0))[0]]).toEqual([1, 0]);
  });
});

describe('Distances', () => {
  it('to a circle are below 0 inside of it', () => {
    const away = (x: number): number => callNumber('distanceToCircle(vec2,vec2,float)', [x, 0.5], [0.5, 0.5], 0.25);
    expect([0.5, 0.75, 1].map(away)).toEqual([-0.25, 0, 0.25]);
  });

  it('to a box are those to its nearest side or corner, and grow evenly', () => {
    const away = (x: number, y: number, rounding = 0): number =>
      callNumber('distanceToBox(vec2,vec2,vec2,float)', [x, y], [0, 0], [2, 1], rounding);
    expect([away(0, 0), away(1, 0), away(3, 0), away(0, -1)]).toEqual([-0.5, 0, 2, 0.5]);
    expect(away(1 + 3, 0.5 + 4)).toBeCloseTo(5, 6);
    // Rounded corners give way along the diagonal by r (√2 − 1).
    expect(away(1, 0.5, 0.25)).toBeCloseTo(0.25 * (Math.SQRT2 - 1), 6);
    expect(away(1, 0, 0.25)).toBeCloseTo(0, 6);
  });

  it('to a box are no further apart than the places are', () => {
    for (let step = 0; step < 200; step++) {
      const [x, y] = [Math.sin(step * 12.9) * 3, Math.cos(step * 7.3) * 3];
      const [there, near] = [
        [x, y],
        [x + 0.01, y],
      ].map((place) => callNumber('distanceToBox(vec2,vec2,vec2,float)', place, [0.2, 0.1], [2, 1], 0.2));
      expect(Math.abs((there ?? NaN) - (near ?? NaN))).toBeLessThanOrEqual(0.0100001);
    }
  });
});
