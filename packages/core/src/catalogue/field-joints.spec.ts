import { callNumber, callShader } from '../testing/call-shader';
import { scatteredPlaces } from '../testing/scattered';
import { isStruct } from '../ir/value';

/** Two planes at right angles: the distances are the coordinates of a point of the plane that cuts both. */
const CORNER = scatteredPlaces(700, 0.5).map(([a = 0, b = 0]): readonly [number, number] => [a, b]);
const SIZE = 0.3;

type Inside = (a: number, b: number) => boolean;

/** Distance of a point to the border of a solid, by looking at a fine grid round it. */
function sought(inside: Inside, a: number, b: number): number {
  const here = inside(a, b);
  const step = 0.004;
  let nearest = Infinity;
  for (let u = -0.6; u <= 0.6; u += step)
    for (let v = -0.6; v <= 0.6; v += step) if (inside(u, v) !== here) nearest = Math.min(nearest, Math.hypot(u - a, v - b));
  return nearest;
}

const within = (value: number, low: number, high: number): boolean => value > low && value < high;

/** Solids that joints make of two half planes, written as sets of points. */
const SEAMS: Record<string, { readonly args: readonly number[]; readonly inside: Inside }> = {
  Round: {
    args: [SIZE],
    inside: (a, b) => a < 0 || b < 0 || (a < SIZE && b < SIZE && Math.hypot(SIZE - a, SIZE - b) > SIZE),
  },
  Chamfered: { args: [SIZE], inside: (a, b) => a < 0 || b < 0 || a + b < SIZE },
  Stairs: {
    args: [SIZE, 4],
    inside: (a, b) => a < 0 || b < 0 || [1, 2, 3].some((step) => a < (step * SIZE) / 4 && b < SIZE - (step * SIZE) / 4),
  },
  Columns: {
    args: [SIZE, 3],
    inside: (a, b) =>
      a < 0 ||
      b < 0 ||
      a + b < SIZE ||
      [1, 3, 5].some((sixth) => Math.hypot(a - (SIZE * sixth) / 6, b - SIZE + (SIZE * sixth) / 6) < (SIZE * Math.SQRT2) / 6),
  },
  Grooved: { args: [0.12], inside: (a, b) => (a < 0 || b < 0) && Math.hypot(a, b) > 0.12 },
};

const signature = (name: string, args: readonly number[]): string => `${name}(float,float${',float'.repeat(args.length)})`;

describe('Joints of fields', () => {
  it('sharp: both, what they share, one without the other', () => {
    for (const [a, b] of CORNER.slice(0, 60)) {
      expect(callNumber('unionOf(float,float)', a, b)).toBeCloseTo(Math.min(a, b), 6);
      expect(callNumber('intersectionOf(float,float)', a, b)).toBeCloseTo(Math.max(a, b), 6);
      expect(callNumber('differenceOf(float,float)', a, b)).toBeCloseTo(Math.max(a, -b), 6);
    }
  });

  for (const [seam, { args, inside }] of Object.entries(SEAMS)) {
    it(`union, ${seam.toLowerCase()}: is the solid that is described, and never says that it is farther than it is`, () => {
      const joint = (a: number, b: number): number => callNumber(signature(`union${seam}`, args), a, b, ...args);
      let near = 0;
      for (const [a, b] of CORNER) {
        const found = joint(a, b);
        if (Math.abs(found) > 1e-4)
          expect(found < 0)
            .withContext(`inside at ${a} ${b}`)
            .toBe(inside(a, b));
      }
      for (const [a, b] of CORNER.filter(([a, b]) => within(a, -0.3, 0.4) && within(b, -0.3, 0.4)).slice(0, 60)) {
        const [found, true_] = [Math.abs(joint(a, b)), sought(inside, a, b)];
        expect(found)
          .withContext(`${a} ${b}`)
          .toBeLessThan(true_ + 0.006);
        if (found > true_ - 0.006) near++;
      }
      // For most places the bound is the distance.
      expect(near).toBeGreaterThan(30);
    });

    it(`intersection and difference, ${seam.toLowerCase()}: the same seam, seen from the other side`, () => {
      for (const [a, b] of CORNER.slice(0, 120)) {
        const both = callNumber(signature(`intersection${seam}`, args), a, b, ...args);
        const expected =
          seam === 'Grooved'
            ? (p: number, q: number) => p < 0 && q < 0 && Math.hypot(p, q) > 0.12
            : (p: number, q: number) => !inside(-p, -q);
        if (Math.abs(both) > 1e-4)
          expect(both < 0)
            .withContext(`both at ${a} ${b}`)
            .toBe(expected(a, b));
        if (seam === 'Grooved') continue;
        const without = callNumber(signature(`difference${seam}`, args), a, b, ...args);
        if (Math.abs(without) > 1e-4)
          expect(without < 0)
            .withContext(`without at ${a} ${b}`)
            .toBe(!inside(-a, b));
      }
    });
  }

  it('difference, grooved: a channel where the other’s surface meets the first', () => {
    for (const [a, b] of CORNER.slice(0, 200)) {
      const found = callNumber('differenceGrooved(float,float,float,float)', a, b, 0.2, 0.15);
      if (Math.abs(found) > 1e-4) expect(found < 0).toBe(a < 0 && !(Math.abs(a) < 0.15 && Math.abs(b) < 0.1));
    }
  });

  it('of size 0 all are sharp', () => {
    for (const [a, b] of CORNER.slice(0, 40)) {
      expect(callNumber('unionStairs(float,float,float,float)', a, b, 0, 5)).toBeCloseTo(Math.min(a, b), 5);
      expect(callNumber('unionColumns(float,float,float,float)', a, b, 0, 5)).toBeCloseTo(Math.min(a, b), 5);
      if (a < 0 || b < 0) continue;
      expect(callNumber('unionRound(float,float,float)', a, b, 0)).toBeCloseTo(Math.min(a, b), 5);
      expect(callNumber('unionChamfered(float,float,float)', a, b, 0)).toBeCloseTo(Math.min(a, b), 5);
    }
  });

  it('keep the region of what is nearer, or deeper', () => {
    const of = (distance: number, region: number) => ({ fields: { distance: [distance], region: [region] } });
    const joined = (name: string, a: number, b: number): number[] => {
      const result = callShader(`${name}(Field,Field)`, [of(a, 3), of(b, 7)]);
      return isStruct(result) ? ['distance', 'region'].map((field) => Number((result.fields[field] as number[])[0])) : [];
    };
    expect(joined('unionOf', 0.5, 0.25)).toEqual([0.25, 7]);
    expect(joined('unionOf', -0.5, 0.25)).toEqual([-0.5, 3]);
    expect(joined('intersectionOf', 0.5, 0.25)).toEqual([0.5, 3]);
    // The wall of a cut belongs to what cuts.
    expect(joined('differenceOf', -0.5, 0.25)).toEqual([-0.25, 7]);
    expect(joined('differenceOf', 0.5, 0.25)).toEqual([0.5, 3]);
  });

  it('morph, grow, onion and displace do as they say', () => {
    expect(callNumber('morphed(float,float,float)', 1, 3, 0.25)).toBeCloseTo(1.5, 6);
    expect(callNumber('morphed(float,float,float)', 1, 3, 7)).toBeCloseTo(3, 6);
    expect(callNumber('grown(float,float)', 1, 0.25)).toBeCloseTo(0.75, 6);
    expect(callNumber('onion(float,float)', -0.5, 0.2)).toBeCloseTo(0.4, 6);
    expect(callNumber('onion(float,float)', 0.05, 0.2)).toBeCloseTo(-0.05, 6);
    expect(callNumber('displaced(float,float,float)', 1, 0.4, 0.5)).toBeCloseTo(0.4, 6);
  });
});
