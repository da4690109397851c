import { components, isStruct, type Value } from '../ir/value';
import { callShader, callVector } from '../testing/call-shader';

type Point = readonly number[];
const plus = (a: Point, b: Point): number[] => a.map((each, axis) => each + (b[axis] ?? 0));
const far = (a: Point): number => Math.hypot(...a);

const POINTS: readonly Point[] = [
  [0.4, 0.9, -0.2],
  [-1.1, 0.3, 0.7],
  [0, 0, 0],
  [2, -3, 0.5],
];

function expectClose(found: Point, wanted: Point, digits = 5): void {
  wanted.forEach((each, axis) => expect(found[axis]).toBeCloseTo(each, digits));
}

describe('Shapes', () => {
  it('a wave: a sine of its height that is the same again one length on, and a travelled way later', () => {
    const at = (position: Point, seconds = 0): readonly number[] =>
      callVector('waveOffset(vec3,vec3,vec3,float,float,float,float)', position, [1, 0, 0], [0, 3, 0], 0.2, 2, 0.5, seconds);
    expectClose(at([0, 5, 5]), [0, 0, 0]);
    expectClose(at([0.5, 0, 0]), [0, 0.2, 0]);
    for (const point of POINTS) {
      expectClose(at(plus(point, [2, 0, 0])), at(point));
      expectClose(at(plus(point, [0.5, 0, 0]), 1), at(point));
    }
  });

  it('a twist: keeps the distance from the axis and the height along it, and turns by angle times height', () => {
    for (const point of POINTS) {
      const [x, y, z] = plus(point, callVector('twistOffset(vec3,vec3,vec3,float)', point, [0, 2, 0], [0, 0, 0], 0.7)) as [
        number,
        number,
        number,
      ];
      const [x0 = 0, y0 = 0, z0 = 0] = point;
      expect(y).toBeCloseTo(y0, 5);
      expect(Math.hypot(x, z)).toBeCloseTo(Math.hypot(x0, z0), 5);
      if (far([x0, z0]) < 1e-6) continue;
      const turned = Math.atan2(-z, x) - Math.atan2(-z0, x0) - 0.7 * y0;
      expect(Math.cos(turned)).toBeCloseTo(1, 5);
    }
  });

  it('a bend: puts the bar on an arc of radius 1 / angle, and keeps lengths along its middle (Barr 1984)', () => {
    const at = (point: Point, angle: number): number[] =>
      plus(point, callVector('bendOffset(vec3,vec3,vec3,vec3,float)', point, [0, 1, 0], [1, 0, 0], [0, 0, 0], angle));
    for (const height of [-1, 0.3, 0.9, 2]) {
      const [x = 0, y = 0] = at([0, height, 0], 0.8);
      expect(Math.hypot(x - 1 / 0.8, y)).toBeCloseTo(1 / 0.8, 5);
      expect(Math.atan2(y, 1 / 0.8 - x)).toBeCloseTo(0.8 * height, 5);
    }
    for (const point of POINTS) {
      expectClose(at(point, 0), point);
      expectClose(at(point, 1e-4), point, 2);
    }
  });

  it('a circle path: stays on its circle, square to its axis, and comes round in one turn', () => {
    const at = (mask: number, seconds: number): readonly number[] =>
      callVector('circlePath(float,float,vec3,float,float,float)', mask, 0.3, [1, 2, 0.5], 0.25, 0.1, seconds);
    for (const seconds of [0, 0.7, 1.9]) {
      const found = at(1, seconds);
      expect(far(found)).toBeCloseTo(0.3, 5);
      expect((found[0] ?? 0) + 2 * (found[1] ?? 0) + 0.5 * (found[2] ?? 0)).toBeCloseTo(0, 5);
      expectClose(at(1, seconds + 4), found, 4);
      expectClose(
        at(0.5, seconds),
        found.map((each) => each / 2),
      );
    }
    expectClose(at(0, 3), [0, 0, 0]);
  });

  it('a pulse: 1 on its crest, which travels, and again one interval on', () => {
    const pulseAt = (y: number, seconds: number): number => {
      const found: Value = callShader('travellingPulse(vec3,vec3,vec3,float,float,float,float,float)', [
        [0, y, 0],
        [0, 0, 1],
        [0, 1, 0],
        0.1,
        0.2,
        2,
        0.5,
        seconds,
      ]);
      if (!isStruct(found)) throw new TypeError('expected a struct');
      const [pulse = NaN] = components(found.fields['pulse'] ?? []);
      expect(components(found.fields['offset'] ?? [])[2]).toBeCloseTo(0.1 * pulse, 6);
      return pulse;
    };
    expect(pulseAt(0, 0)).toBeCloseTo(1, 6);
    expect(pulseAt(0.2, 0)).toBeCloseTo(Math.exp(-1), 5);
    expect(pulseAt(0.5, 1)).toBeCloseTo(1, 6);
    expect(pulseAt(2, 0)).toBeCloseTo(1, 6);
    expect(pulseAt(1, 0)).toBeLessThan(1e-6);
  });

  it('wind: moves nothing where it is held, less than twice its strength elsewhere, and never stands still', () => {
    const at = (point: Point, free: number, seconds: number): readonly number[] =>
      callVector('windOffset(vec3,float,vec3,float,float,float,float)', point, free, [1, 0, 0.3], 0.25, 1, 1.2, seconds);
    const moves = POINTS.map((point) => {
      expectClose(at(point, 0, 1), [0, 0, 0]);
      expect(far(at(point, 1, 1))).toBeLessThan(0.6);
      return far(
        plus(
          at(point, 1, 1),
          at(point, 1, 1.4).map((each) => -each),
        ),
      );
    });
    expect(Math.max(...moves)).toBeGreaterThan(0.02);
  });

  it('a wobble: stays along the normal and within its amount', () => {
    for (const point of POINTS) {
      const [x, y, z = 0] = callVector('wobbleOffset(vec3,vec3,float,float,float,float)', point, [0, 0, 1], 0.1, 1.3, 0.4, 2.2);
      expect(Math.hypot(x ?? 1, y ?? 1)).toBe(0);
      expect(Math.abs(z)).toBeLessThanOrEqual(0.1);
    }
  });
});
