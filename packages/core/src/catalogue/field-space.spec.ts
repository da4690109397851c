import { components, isStruct, type Value } from '../ir/value';
import { callShader, callVector } from '../testing/call-shader';
import { scatteredPlaces } from '../testing/scattered';

const PLACES = scatteredPlaces(200, 3);
const part = (value: Value, name: string): readonly number[] => (isStruct(value) ? components(value.fields[name] ?? []) : []);
const apart = (a: readonly number[], b: readonly number[]): number => Math.hypot(...a.map((each, axis) => each - (b[axis] ?? 0)));

function expectNear(found: readonly number[], wanted: readonly number[], digits = 5): void {
  wanted.forEach((each, axis) => expect(found[axis]).withContext(found.join(' ')).toBeCloseTo(each, digits));
}

describe('Space of fields', () => {
  it('moved and turned: what stood at the origin stands where it was put, as far from all as before', () => {
    expectNear(callVector('movedSpace(vec3,vec3)', [1, 2, 3], [1, 2, 3]), [0, 0, 0]);
    const turned = (place: readonly number[]): readonly number[] =>
      callVector('turnedSpace(vec3,vec3,float)', place, [0, 2, 0], Math.PI / 2);
    // A quarter turn round y brings what lies along x to −z, so it is asked for there.
    expectNear(turned([0, 0, -1]), [1, 0, 0]);
    expectNear(turned([0, 5, 0]), [0, 5, 0]);
    for (const [index, place] of PLACES.entries()) {
      const other = PLACES[(index + 17) % PLACES.length] ?? place;
      expect(apart(turned(place), turned(other))).toBeCloseTo(apart(place, other), 4);
    }
  });

  it('scaled: gives the factor that makes distances true again', () => {
    const found = callShader('scaledSpace(vec3,float)', [[3, 0, 0], 2]);
    expectNear(part(found, 'position'), [1.5, 0, 0]);
    expect(part(found, 'factor')).toEqual([2]);
    expect(part(callShader('scaledSpace(vec3,float)', [[3, 0, 0], 0]), 'position').every(Number.isFinite)).toBeTrue();
  });

  it('repeated: endless, along one axis, limited about the origin; each copy has its index', () => {
    const repeated = (place: readonly number[], spacing: readonly number[], copies: readonly number[]): number[][] => {
      const found = callShader('repeatedSpace(vec3,vec3,vec3)', [place, spacing, copies]);
      return [[...part(found, 'position')], [...part(found, 'index')]];
    };
    expectNear(repeated([4.3, 9, -2.1], [2, 0, 2], [0, 0, 0]).flat(), [0.3, 9, -0.1, 2, 0, -1]);
    // Of four copies two stand on either side; beyond the last it goes on without more.
    expectNear(repeated([2.9, 0, 0], [2, 0, 0], [4, 0, 0]).flat(), [-0.1, 0, 0, 3, 0, 0]);
    expectNear(repeated([9, 0, 0], [2, 0, 0], [4, 0, 0]).flat(), [6, 0, 0, 3, 0, 0]);
    expectNear(repeated([-9, 0, 0], [2, 0, 0], [3, 0, 0]).flat(), [-7, 0, 0, 0, 0, 0]);
    expectNear(repeated([5, 6, 7], [0, 0, 0], [3, 3, 3]).flat(), [5, 6, 7, 0, 0, 0]);
  });

  it('in a ring: each copy looks outwards, and is counted from 0', () => {
    for (let copy = 0; copy < 6; copy++) {
      const angle = (copy * Math.PI) / 3 + 0.1;
      const found = callShader('ringSpace(vec3,float)', [[2 * Math.cos(angle), 0.5, 2 * Math.sin(angle)], 6]);
      expectNear(part(found, 'position'), [2 * Math.cos(0.1), 0.5, 2 * Math.sin(0.1)]);
      expect(part(found, 'index')[0]).toBeCloseTo(copy, 5);
    }
    expect(part(callShader('ringSpace(vec3,float)', [[0, 0, 0], 6]), 'position').every(Number.isFinite)).toBeTrue();
  });

  it('mirrored: in one, two or eight mirrors the same is seen', () => {
    const mirrored = (place: readonly number[], ways: number): readonly number[] =>
      callVector('mirroredSpace(vec3,float,float)', place, ways, 0);
    for (const [px = 0, py = 0, pz = 0] of PLACES.slice(0, 40)) {
      expectNear(mirrored([-px, py, pz], 0), mirrored([px, py, pz], 0));
      expect(mirrored([px, py, pz], 0)[2]).toBeCloseTo(pz, 5);
      expectNear(mirrored([-px, py, -pz], 1), mirrored([px, py, pz], 1));
      for (const same of [
        [pz, py, px],
        [-pz, py, px],
        [-px, py, pz],
        [px, py, -pz],
      ])
        expectNear(mirrored(same, 2), mirrored([px, py, pz], 2));
    }
    expectNear(callVector('mirroredSpace(vec3,float,float)', [-3, 1, -3], 1, 3), [0, 1, 0]);
  });

  it('twisted and bent: as they say, no longer than they say', () => {
    expectNear(callVector('twistedSpace(vec3,float)', [1, 0, 0], 5), [1, 0, 0]);
    expectNear(callVector('twistedSpace(vec3,float)', [0, 2, 1], Math.PI / 4), [1, 2, 0]);
    // Laid along a circle of radius 2, a quarter of it is π long and ends at its side.
    expectNear(callVector('bentSpace(vec3,float)', [2, 2, 0.3], 0.5), [Math.PI, 0, 0.3]);
    expectNear(callVector('bentSpace(vec3,float)', [2, -2, 0], -0.5), [Math.PI, 0, 0]);
    expectNear(callVector('bentSpace(vec3,float)', [1, 2, 3], 0), [1, 2, 3]);
    for (const place of PLACES.slice(0, 60)) {
      const beside = place.map((each, axis) => each + [0.6e-2, 0.64e-2, 0.48e-2][axis]!);
      const away = apart(place, beside);
      const radius = Math.max(...[place, beside].map(([px = 0, , pz = 0]) => Math.hypot(px, pz)));
      const twisted = apart(callVector('twistedSpace(vec3,float)', place, 1.5), callVector('twistedSpace(vec3,float)', beside, 1.5));
      // The longest side of a square that is sheared by r t.
      const shear = radius * 1.5;
      expect(twisted).toBeLessThan(away * (shear / 2 + Math.hypot(1, shear / 2)) * 1.01 + 1e-5);
    }
  });

  it('stretched: the halves lie apart, what is between is as in the middle', () => {
    expectNear(callVector('stretchedSpace(vec3,vec3)', [0.4, 0.2, 0], [1, 0, 0]), [0, 0.2, 0]);
    expectNear(callVector('stretchedSpace(vec3,vec3)', [2, 0.2, 0], [1, 0, 0]), [1.5, 0.2, 0]);
    expectNear(callVector('stretchedSpace(vec3,vec3)', [-2, 0.2, 0], [1, 0, 0]), [-1.5, 0.2, 0]);
  });
});
