import { FRONT_FACING } from '../ir/builtin-variables';
import { callNumber, callShader } from '../testing/call-shader';
import { components, isStruct, type Value } from '../ir/value';

const field = (value: Value, name: string): number => (isStruct(value) ? (components(value.fields[name] ?? [])[0] ?? NaN) : NaN);

/** Places in a cube of ten cells, scattered without a period. */
const PLACES = Array.from({ length: 500 }, (_, index) => [
  ((index * 0.7548776662) % 1) * 10 - 5,
  ((index * 0.5698402911) % 1) * 10 - 5,
  ((index * 0.3819660113) % 1) * 10 - 5,
]);

function spread(values: readonly number[]): { mean: number; low: number; high: number } {
  return { mean: values.reduce((sum, each) => sum + each, 0) / values.length, low: Math.min(...values), high: Math.max(...values) };
}

describe('Noise', () => {
  const over = (signature: string, ...more: number[]): number[] => PLACES.map((place) => callNumber(signature, place, 1, ...more));

  it('white: spreads evenly over 0…1, one value a cell', () => {
    const values = over('whiteNoise(vec3,float)');
    const { mean, low, high } = spread(values);
    expect(mean).toBeCloseTo(0.5, 1);
    expect(low).toBeGreaterThanOrEqual(0);
    expect(high).toBeLessThanOrEqual(1);
    // A tenth of the values in each tenth, give or take a third of it.
    for (let tenth = 0; tenth < 10; tenth++) {
      const share = values.filter((each) => each >= tenth / 10 && each < (tenth + 1) / 10).length / values.length;
      expect(Math.abs(share - 0.1)).toBeLessThan(0.05);
    }
    expect(callNumber('whiteNoise(vec3,float)', [0.1, 0.2, 0.3], 1)).toBe(callNumber('whiteNoise(vec3,float)', [0.9, 0.8, 0.7], 1));
    expect(callNumber('whiteNoise(vec3,float)', [-0.1, 0.2, 0.3], 1)).not.toBe(callNumber('whiteNoise(vec3,float)', [0.1, 0.2, 0.3], 1));
  });

  for (const [signature, more, low, high] of [
    ['valueNoise(vec3,float)', [], 0, 1],
    ['gradientNoise(vec3,float)', [], -1, 1],
    ['fractalNoise(vec3,float,float,float,float)', [4, 0.5, 2], -1, 1],
    ['ridgedNoise(vec3,float,float,float,float)', [4, 0.5, 2], 0, 1],
    ['simplexNoise(vec3,float)', [], -1, 1],
    ['warpedNoise(vec3,float,float)', [0.3], -1, 1],
  ] as const) {
    it(`${signature}: stays in its range, uses it, and has no jumps`, () => {
      const values = over(signature, ...more);
      const found = spread(values);
      expect(found.low).toBeGreaterThanOrEqual(low);
      expect(found.high).toBeLessThanOrEqual(high);
      expect(found.high - found.low).toBeGreaterThan((high - low) * 0.35);
      let worst = 0;
      for (const place of PLACES.slice(0, 150)) {
        const beside = place.map((each, axis) => (axis === 0 ? each + 1e-3 : each));
        worst = Math.max(worst, Math.abs(callNumber(signature, place, 1, ...more) - callNumber(signature, beside, 1, ...more)));
      }
      expect(worst).toBeLessThan(0.04);
    });
  }

  it('gradient: is 0 at the corners of cells, and on average', () => {
    for (const corner of [
      [0, 0, 0],
      [3, -2, 7],
      [-5, 11, -1],
    ])
      expect(callNumber('gradientNoise(vec3,float)', corner, 1)).toBeCloseTo(0, 6);
    expect(Math.abs(spread(over('gradientNoise(vec3,float)')).mean)).toBeLessThan(0.05);
  });

  it('cellular: finds the nearest of the scattered points and the next', () => {
    for (const place of PLACES.slice(0, 200)) {
      const found = callShader('cellularNoise(vec3,float,float)', [place, 1, 1]);
      const [first, second, edge] = ['distance', 'second', 'edge'].map((name) => field(found, name));
      expect(first).toBeGreaterThanOrEqual(0);
      expect(second!).toBeGreaterThanOrEqual(first!);
      expect(edge).toBeCloseTo(second! - first!, 5);
    }
    // Without scatter the points are the middles of the cells.
    const regular = callShader('cellularNoise(vec3,float,float)', [[2.5, 0.5, 0.5], 1, 0]);
    expect(field(regular, 'distance')).toBeCloseTo(0, 6);
    expect(field(regular, 'second')).toBeCloseTo(1, 5);
    const ids = new Set(PLACES.slice(0, 200).map((place) => field(callShader('cellularNoise(vec3,float,float)', [place, 1, 1]), 'id')));
    expect(ids.size).toBeGreaterThan(100);
  });
});

describe('Tiles', () => {
  const grid = Array.from({ length: 64 }, (_, index) => [((index % 8) + 0.43) / 8, (Math.floor(index / 8) + 0.57) / 8]);

  it('checker: alternates, and covers half', () => {
    const at = (u: number, v: number): number => callNumber('checkerAt(vec2,float)', [u, v], 8);
    for (const [u = 0, v = 0] of grid) {
      expect(Math.abs(at(u, v) - 0.5)).toBeCloseTo(0.5, 3);
      expect(at(u, v) + at(u + 1 / 8, v)).toBeCloseTo(1, 3);
      expect(at(u, v)).toBeCloseTo(at(u + 1 / 8, v + 1 / 8), 3);
    }
  });

  it('stripes, grid, dots and rings cover what their width says', () => {
    const fine = Array.from({ length: 1600 }, (_, index) => [((index % 40) + 0.5) / 40, (Math.floor(index / 40) + 0.5) / 40]);
    const cover = (signature: string, ...more: number[]): number => spread(fine.map((uv) => callNumber(signature, uv, 4, ...more))).mean;
    expect(cover('stripesAt(vec2,float,float)', 0.3)).toBeCloseTo(0.3, 2);
    expect(cover('gridAt(vec2,float,float)', 0.2)).toBeCloseTo(1 - 0.8 * 0.8, 2);
    expect(cover('dotsAt(vec2,float,float)', 0.6)).toBeCloseTo(Math.PI * 0.09, 1);
    expect(cover('dotsAt(vec2,float,float)', 0)).toBe(0);
    expect(callNumber('ringsAt(vec2,float,float,vec2)', [0.5 + 0.05, 0.5], 4, 0.5, [0.5, 0.5])).toBeCloseTo(1, 3);
    expect(callNumber('ringsAt(vec2,float,float,vec2)', [0.5 + 0.2, 0.5], 4, 0.5, [0.5, 0.5])).toBeCloseTo(0, 3);
  });

  it('brick: shifts every other course, and knows each brick', () => {
    const at = (u: number, v: number): Value => callShader('brickAt(vec2,float,float,float,float)', [[u, v], 4, 2, 0.1, 0.5]);
    expect(field(at(0.25, 0.125), 'mortar')).toBe(0);
    expect(field(at(0.25, 0.25), 'mortar')).toBeCloseTo(1, 2);
    expect(field(at(0.5, 0.125), 'mortar')).toBeCloseTo(1, 2);
    expect(field(at(0.5, 0.375), 'mortar')).toBe(0);
    expect(field(at(0.2, 0.125), 'id')).toBe(field(at(0.3, 0.125), 'id'));
    expect(field(at(0.2, 0.125), 'id')).not.toBe(field(at(0.7, 0.125), 'id'));
  });

  it('hexagons: have six sides of one distance, and a number each', () => {
    const at = (u: number, v: number): Value => callShader('hexagonsAt(vec2,float,float)', [[u, v], 1, 0.1]);
    // The middle of a cell lies at half the lattice; half a unit beside it is its border.
    const [u, v] = [0.5, 0.8660254];
    for (let side = 0; side < 6; side++) {
      const angle = (side * Math.PI) / 3;
      const [x, y] = [Math.cos(angle), Math.sin(angle)];
      expect(field(at(u + x * 0.4, v + y * 0.4), 'border')).toBe(0);
      expect(field(at(u + x * 0.48, v + y * 0.48), 'border')).toBe(1);
      expect(field(at(u + x * 0.4, v + y * 0.4), 'id')).toBe(field(at(u, v), 'id'));
      expect(field(at(u + x, v + y), 'id')).not.toBe(field(at(u, v), 'id'));
    }
  });

  it('waves swing once a wave, and spirals close round their middle', () => {
    const waves = [0, 0.25, 0.5, 0.75].map((u) => callNumber('wavesAt(vec2,float,float)', [u, 0], 1, 0));
    [0.5, 1, 0.5, 0].forEach((each, index) => expect(waves[index]).toBeCloseTo(each, 4));
    const spiral = (angle: number): number =>
      callNumber(
        'spiralAt(vec2,float,float,float,vec2)',
        [0.5 + 0.3 * Math.cos(angle), 0.5 + 0.3 * Math.sin(angle)],
        6,
        3,
        0.5,
        [0.5, 0.5],
      );
    for (let step = 0; step < 12; step++) {
      const angle = -Math.PI + 0.07 + step * 0.2;
      expect(spiral(angle)).toBeCloseTo(spiral(angle + (2 * Math.PI) / 3), 2);
    }
    const around = Array.from({ length: 400 }, (_, index) => spiral((index * 2 * Math.PI) / 400));
    expect(spread(around).mean).toBeCloseTo(0.5, 1);
  });
});

describe('Dissolve', () => {
  const at = (pattern: number, amount: number): { left: number; seam: number } => {
    const found = callShader('dissolve(float,float,float)', [pattern, amount, 0.1]);
    return { left: field(found, 'left'), seam: field(found, 'seam') };
  };

  it('leaves all at 0 and nothing at 1, and glows just above its border', () => {
    for (const pattern of [0, 0.3, 1]) {
      expect(at(pattern, 0)).toEqual({ left: 1, seam: 0 });
      expect(at(pattern, 1).left).toBe(0);
    }
    expect(at(0.45, 0.5)).toEqual({ left: 0, seam: 0 });
    expect(at(0.55, 0.5).left).toBe(1);
    expect(at(0.55, 0.5).seam).toBeCloseTo(0.5, 2);
    expect(at(0.7, 0.5).seam).toBe(0);
  });
});

describe('Triangles and lattice', () => {
  it('triangles have the same border on all three sides, and a number each', () => {
    const border = (x: number, y: number): number => field(callShader('trianglesAt(vec2,float,float)', [[x, y], 1, 0.2]), 'border');
    // The triangle 0, 0 · 1, 0 · ½, ½√3: its middle, and the middles of its sides.
    const height = Math.sqrt(3) / 2;
    expect(border(0.5, height / 3)).toBe(0);
    for (const [x, y] of [
      [0.5, 0.001],
      [0.251, height / 2],
      [0.749, height / 2],
    ] as const)
      expect(border(x, y)).toBeGreaterThan(0.9);
    const ids = new Set(
      PLACES.slice(0, 60).map(([x = 0, y = 0]) => field(callShader('trianglesAt(vec2,float,float)', [[x, y], 1, 0.1]), 'id')),
    );
    expect(ids.size).toBeGreaterThan(40);
  });

  it('a lattice fills 3w² − 2w³ of space', () => {
    for (const width of [0.2, 0.5]) {
      const inside = PLACES.filter((place) => callNumber('latticeAt(vec3,float,float)', place, 1, width) > 0.5).length / PLACES.length;
      expect(Math.abs(inside - (3 * width ** 2 - 2 * width ** 3))).toBeLessThan(0.05);
    }
  });
});

describe('Flakes', () => {
  it('are there as often as their density says, with unit normals', () => {
    const globals = new Map<string, Value>([
      ['worldNormal', [0, 0, 1]],
      [FRONT_FACING, [1]],
    ]);
    const share = (density: number): number => {
      const found = PLACES.map((place) => callShader('flakesAt(vec3,float,float,float,float)', [place, 1, density, 1, 0.5], globals));
      for (const each of found) if (isStruct(each)) expect(Math.hypot(...components(each.fields['normal'] ?? []))).toBeCloseTo(1, 4);
      return found.filter((each) => field(each, 'flake') > 0.5).length / found.length;
    };
    expect(share(0)).toBe(0);
    expect(share(1)).toBeGreaterThan(0.7);
    expect(Math.abs(share(0.5) / share(1) - 0.5)).toBeLessThan(0.12);
  });
});
