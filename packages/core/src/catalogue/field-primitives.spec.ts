import { callNumber, callVector } from '../testing/call-shader';
import { scatteredPlaces } from '../testing/scattered';

type Point = readonly number[];
type Distance = (point: Point) => number;

const [x, y, z] = [0, 1, 2].map(
  (axis) =>
    (point: Point): number =>
      point[axis] ?? 0,
) as [Distance, Distance, Distance];
const offAxis = (point: Point): number => Math.hypot(x(point), z(point));
const apart = (a: Point, b: Point): number => Math.hypot(...a.map((each, axis) => each - (b[axis] ?? 0)));

const PLACES = scatteredPlaces(400, 1.6);

function slopeAt(distance: Distance, point: Point, step = 1e-3): number[] {
  return point.map((_, axis) => {
    const beside = (by: number): number => distance(point.map((each, other) => (other === axis ? each + by : each)));
    return (beside(step) - beside(-step)) / (2 * step);
  });
}

/**
 * That nothing is nearer than a distance says, that the way down its slope leads to a point of the surface as far away as it says,
 * and that its sign is that of the solid: together, that it is exact.
 */
function expectExact(distance: Distance, inside: (point: Point) => boolean, where: (point: Point) => boolean = () => true): void {
  let looked = 0;
  for (const place of PLACES) {
    const away = distance(place);
    if (Math.abs(away) > 1e-3)
      expect(away < 0)
        .withContext(`inside at ${place.join(' ')}`)
        .toBe(inside(place));
    if (!where(place)) continue;
    const slope = slopeAt(distance, place);
    const steep = Math.hypot(...slope);
    expect(steep)
      .withContext(`slope at ${place.join(' ')}`)
      .toBeLessThan(1.003);
    // On a ridge, where two points are nearest, there is no slope.
    if (steep < 0.9995) continue;
    looked++;
    const foot = place.map((each, axis) => each - away * (slope[axis] ?? 0));
    expect(Math.abs(distance(foot)))
      .withContext(`foot of ${place.join(' ')}`)
      .toBeLessThan(4e-3);
  }
  expect(looked).toBeGreaterThan(PLACES.length / 10);
  for (const [index, place] of PLACES.entries()) {
    const other = PLACES[(index * 7 + 3) % PLACES.length] ?? place;
    expect(Math.abs(distance(place) - distance(other))).toBeLessThan(apart(place, other) * 1.002 + 1e-9);
  }
}

const outside =
  (distance: Distance) =>
  (point: Point): boolean =>
    distance(point) > 1e-3;

function inTriangle(point: readonly [number, number], corners: readonly (readonly [number, number])[]): boolean {
  const sides = corners.map(([cx, cy], index) => {
    const [nx, ny] = corners[(index + 1) % corners.length] ?? [0, 0];
    return (nx - cx) * (point[1] - cy) - (ny - cy) * (point[0] - cx) > 0;
  });
  return sides.every((side) => side === sides[0]);
}

describe('Fields of solids', () => {
  it('sphere', () => {
    const sphere: Distance = (p) => callNumber('sphereField(vec3,float)', p, 0.8);
    expect(sphere([0, 0, 0])).toBeCloseTo(-0.8, 6);
    expect(sphere([0, 3, 4])).toBeCloseTo(4.2, 6);
    expectExact(sphere, (p) => Math.hypot(...p) < 0.8);
  });

  it('ellipsoid: exact to a part in a thousand, also where it is a needle or a disc', () => {
    for (const radii of [
      [0.9, 0.5, 0.7],
      [0.08, 1.5, 0.08],
      [1.2, 0.06, 1.2],
      [0.5, 0.5, 0.5],
    ]) {
      const ellipsoid: Distance = (p) => callNumber('ellipsoidField(vec3,vec3)', p, radii);
      expectExact(ellipsoid, (p) => p.reduce((sum, each, axis) => sum + (each / (radii[axis] ?? 1)) ** 2, 0) < 1, outside(ellipsoid));
      for (const axis of [0, 1, 2]) {
        const beyond = [0, 0, 0].map((_, other) => (other === axis ? 3 : 0));
        expect(ellipsoid(beyond)).toBeCloseTo(3 - (radii[axis] ?? 0), 3);
      }
      expect(ellipsoid([0, 0, 0])).toBeCloseTo(-Math.min(...radii), 3);
    }
  });

  it('box, sharp and rounded', () => {
    const size = [1.2, 0.8, 1];
    const box: Distance = (p) => callNumber('boxField(vec3,vec3,float)', p, size, 0);
    expect(box([0, 0, 0])).toBeCloseTo(-0.4, 6);
    expect(box([0.6 + 3, 0, 0.5 + 4])).toBeCloseTo(5, 6);
    const within = (p: Point, margin = 0): boolean => p.every((each, axis) => Math.abs(each) < (size[axis] ?? 0) / 2 - margin);
    expectExact(box, (p) => within(p));
    const rounded: Distance = (p) => callNumber('boxField(vec3,vec3,float)', p, size, 0.15);
    expect(rounded([0.6, 0.4, 0.5])).toBeCloseTo(0.15 * (Math.sqrt(3) - 1), 6);
    expectExact(rounded, (p) => {
      const nearest = p.map((each, axis) => Math.max(Math.abs(each) - (size[axis] ?? 0) / 2 + 0.15, 0));
      return Math.hypot(...nearest) < 0.15;
    });
    // A radius that no edge has room for is as large as there is room.
    expect(callNumber('boxField(vec3,vec3,float)', [0.3, 0.9, 0], size, 9)).toBeCloseTo(
      callNumber('boxField(vec3,vec3,float)', [0.3, 0.9, 0], size, 0.4),
      6,
    );
  });

  it('box frame: bars lie within the box', () => {
    const frame: Distance = (p) => callNumber('boxFrameField(vec3,vec3,float)', p, [1.6, 1.2, 1.4], 0.2);
    const bars = (p: Point): boolean => {
      const near = [0.8, 0.6, 0.7].map((half, axis) => half - Math.abs(p[axis] ?? 0));
      return near.every((each) => each > 0) && near.filter((each) => each < 0.2).length >= 2;
    };
    expect(frame([0, 0, 0])).toBeCloseTo(Math.hypot(0.4, 0.5), 6);
    expectExact(frame, bars, outside(frame));
  });

  it('plane', () => {
    const plane: Distance = (p) => callNumber('planeField(vec3,vec3,float)', p, [0, 3, 4], 0.2);
    expect(plane([5, 3, 4])).toBeCloseTo(4.8, 6);
    expectExact(plane, (p) => (3 * y(p) + 4 * z(p)) / 5 < 0.2);
  });

  it('cylinder, sharp and rounded', () => {
    const cylinder: Distance = (p) => callNumber('cylinderField(vec3,float,float,float)', p, 0.7, 1, 0);
    expect(cylinder([0.7 + 3, 0.5 + 4, 0])).toBeCloseTo(5, 6);
    expectExact(cylinder, (p) => offAxis(p) < 0.7 && Math.abs(y(p)) < 0.5);
    const rounded: Distance = (p) => callNumber('cylinderField(vec3,float,float,float)', p, 0.7, 1, 0.2);
    expectExact(rounded, (p) => Math.hypot(Math.max(offAxis(p) - 0.5, 0), Math.max(Math.abs(y(p)) - 0.3, 0)) < 0.2);
  });

  it('cone and capped cone', () => {
    const cone: Distance = (p) => callNumber('coneField(vec3,float,float)', p, 0.8, 1.4);
    expect(cone([0, 2.7, 0])).toBeCloseTo(2, 6);
    expectExact(cone, (p) => Math.abs(y(p)) < 0.7 && offAxis(p) < (0.8 * (0.7 - y(p))) / 1.4);
    for (const [bottom, top] of [
      [0.9, 0.3],
      [0.2, 0.8],
      [0.6, 0.6],
    ] as const) {
      const capped: Distance = (p) => callNumber('cappedConeField(vec3,float,float,float)', p, bottom, top, 1.2);
      expectExact(capped, (p) => Math.abs(y(p)) < 0.6 && offAxis(p) < bottom + (top - bottom) * (y(p) / 1.2 + 0.5));
    }
  });

  it('capsule, also without a length', () => {
    const capsule: Distance = (p) => callNumber('capsuleField(vec3,vec3,vec3,float)', p, [-0.5, 0, 0], [0.7, 0, 0], 0.3);
    expectExact(capsule, (p) => Math.hypot(x(p) - Math.min(Math.max(x(p), -0.5), 0.7), y(p), z(p)) < 0.3);
    expect(callNumber('capsuleField(vec3,vec3,vec3,float)', [0, 2, 0], [0, 1, 0], [0, 1, 0], 0.25)).toBeCloseTo(0.75, 6);
  });

  it('torus and link', () => {
    const torus: Distance = (p) => callNumber('torusField(vec3,float,float)', p, 0.9, 0.5);
    expect(torus([0, 0, 0])).toBeCloseTo(0.65, 6);
    expectExact(torus, (p) => Math.hypot(offAxis(p) - 0.9, y(p)) < 0.25);
    const link: Distance = (p) => callNumber('linkField(vec3,float,float,float)', p, 0.8, 0.5, 0.3);
    expectExact(link, (p) => {
      const straight = Math.max(Math.abs(y(p)) - 0.4, 0);
      return Math.hypot(Math.hypot(x(p), straight) - 0.5, z(p)) < 0.15;
    });
  });

  it('prism', () => {
    const prism: Distance = (p) => callNumber('prismField(vec3,float,float,float)', p, 3, 1, 0.8);
    const corners = [0, 1, 2].map((index): [number, number] => [Math.cos((index * 2 * Math.PI) / 3), Math.sin((index * 2 * Math.PI) / 3)]);
    expectExact(prism, (p) => Math.abs(y(p)) < 0.4 && inTriangle([x(p), z(p)], corners));
  });

  it('arch: round above, on legs below', () => {
    const arch: Distance = (p) => callNumber('archField(vec3,float,float,float,float)', p, 0.8, 0.6, 0.3, 0.5);
    const inside = (p: Point): boolean => {
      const across = y(p) > 0 ? Math.hypot(x(p), y(p)) : Math.abs(x(p));
      return Math.abs(z(p)) < 0.25 && y(p) > -0.6 && Math.abs(across - 0.8) < 0.15;
    };
    expectExact(arch, inside, outside(arch));
  });

  it('height: never farther than the ground, and on it where it lies', () => {
    const wave = (p: Point): number => 0.3 * Math.sin(2 * x(p));
    const ground: Distance = (p) => callNumber('heightField(vec3,float,float)', p, wave(p), 0.6);
    for (const place of PLACES) {
      expect(ground(place) < 0).toBe(y(place) < wave(place));
      expect(Math.hypot(...slopeAt(ground, place))).toBeLessThan(1.001);
    }
  });
});

describe('Fields of shapes of the plane', () => {
  const flat =
    (signature: string, ...more: (number | readonly number[])[]): Distance =>
    (p) =>
      callNumber(signature, [x(p), y(p)], ...more);

  it('polygon: a corner points along u, whatever the number of sides', () => {
    for (const sides of [3, 4, 5, 8]) {
      const polygon = flat('distanceToPolygon(vec2,vec2,float,float)', [0.1, -0.2], 0.9, sides);
      const corners = Array.from({ length: sides }, (_, index): [number, number] => [
        0.1 + 0.9 * Math.cos((index * 2 * Math.PI) / sides),
        -0.2 + 0.9 * Math.sin((index * 2 * Math.PI) / sides),
      ]);
      for (const [cx, cy] of corners) expect(polygon([cx, cy])).toBeCloseTo(0, 5);
      expectExact(polygon, (p) => inTriangle([x(p), y(p)], corners));
    }
  });

  it('star: between its tips it is drawn in', () => {
    const star = flat('distanceToStar(vec2,vec2,float,float,float)', [0, 0], 1, 0.45, 5);
    expect(star([1, 0])).toBeCloseTo(0, 5);
    expect(star([0.45 * Math.cos(Math.PI / 5), 0.45 * Math.sin(Math.PI / 5)])).toBeCloseTo(0, 5);
    expect(star([2, 0])).toBeCloseTo(1, 5);
    expectExact(star, (p) => {
      const sector = (2 * Math.PI) / 5;
      const angle = Math.atan2(y(p), x(p));
      const off = Math.abs(angle - sector * Math.round(angle / sector));
      // In half a sector it is all on this side of the line from a tip to the next notch.
      const [u, v] = [Math.hypot(x(p), y(p)) * Math.cos(off), Math.hypot(x(p), y(p)) * Math.sin(off)];
      const [notchU, notchV] = [0.45 * Math.cos(Math.PI / 5), 0.45 * Math.sin(Math.PI / 5)];
      return (u - 1) * notchV < v * (notchU - 1);
    });
  });

  it('curve: the nearest of all its points, bent, straight and folded back on itself', () => {
    for (const [from, bend, to] of [
      [
        [-1, -0.5],
        [0.2, 1.4],
        [0.9, -0.6],
      ],
      [
        [-1, 0.2],
        [0, 0.2],
        [1, 0.2],
      ],
      [
        [-0.8, 0],
        [0.9, 0.1],
        [-0.6, 0.05],
      ],
      [
        [0.2, 0.3],
        [0.2, 0.3],
        [0.2, 0.3],
      ],
    ] as const) {
      const points = Array.from({ length: 2001 }, (_, index) => {
        const t = index / 2000;
        return [0, 1].map((axis) => (1 - t) ** 2 * (from[axis] ?? 0) + 2 * t * (1 - t) * (bend[axis] ?? 0) + t * t * (to[axis] ?? 0));
      });
      for (const place of PLACES.slice(0, 150)) {
        const nearest = Math.min(...points.map((point) => apart(point, place.slice(0, 2))));
        const found = callNumber('distanceToCurve(vec2,vec2,vec2,vec2,float)', place.slice(0, 2), from, bend, to, 0.2);
        expect(Math.abs(found - (nearest - 0.1)))
          .withContext(place.join(' '))
          .toBeLessThan(2e-3);
      }
    }
  });

  it('extruded and turned shapes are solids whose distances are exact', () => {
    const star: Distance = (p) =>
      callNumber(
        'extruded(float,float,float)',
        callNumber('distanceToStar(vec2,vec2,float,float,float)', [x(p), z(p)], [0, 0], 0.9, 0.5, 6),
        y(p),
        0.8,
      );
    expectExact(star, (p) => star([x(p), 0, z(p)]) < 0 && Math.abs(y(p)) < 0.4);
    const ring: Distance = (p) => Math.hypot(...callVector('revolved(vec3,float)', p, 0.8)) - 0.3;
    expectExact(ring, (p) => Math.hypot(offAxis(p) - 0.8, y(p)) < 0.3);
  });
});
