import { FRONT_FACING } from '../ir/builtin-variables';
import type { Value } from '../ir/value';
import { components, isStruct } from '../ir/value';
import { callNumber, callShader, callVector, rigGlobals } from '../testing/call-shader';
import { newRig } from '../document/new-documents';

/** An object that is scaled by 2, turned a quarter about y (x goes to −z) and moved. */
const PLACED: [string, Value][] = [
  ['placeRowX', [0, 0, 2, 5]],
  ['placeRowY', [0, 2, 0, 6]],
  ['placeRowZ', [-2, 0, 0, 7]],
];
const globals = new Map<string, Value>([
  ...rigGlobals(newRig(''), [5, 8, 5]),
  ...PLACED,
  ['worldNormal', [0, 0, -1]],
  ['worldTangent', [0, 1, 0, 1]],
  [FRONT_FACING, [1]],
]);
const [OBJECT, WORLD, VIEW] = [0, 1, 2];
const [POINT, DIRECTION] = [0, 1];

const changed = (value: readonly number[], is: number, from: number, to: number): readonly number[] =>
  components(callShader('changedSpace(vec3,float,float,float)', [value, is, from, to], globals));
const part = (signature: string, name: string): readonly number[] => {
  const found = callShader(signature, [], globals);
  return isStruct(found) ? components(found.fields[name] ?? []) : [];
};

function expectClose(found: readonly number[], wanted: readonly number[]): void {
  wanted.forEach((each, axis) => expect(found[axis]).toBeCloseTo(each, 5));
}

describe('Spaces', () => {
  it('change: a point is moved, turned and scaled, a direction is not moved', () => {
    expectClose(changed([1, 1, 0], POINT, OBJECT, WORLD), [5, 8, 5]);
    expectClose(changed([5, 8, 5], POINT, WORLD, OBJECT), [1, 1, 0]);
    expectClose(changed([1, 1, 0], DIRECTION, OBJECT, WORLD), [0, 2, -2]);
  });

  it('tell the direction from the middle of the mesh, as the copy is turned and scaled', () => {
    const from = (place: readonly number[], scale: readonly number[]): readonly number[] =>
      components(callShader('surfaceFromMiddle()', [], new Map<string, Value>([...globals, ['meshPlace', place], ['placeScale', scale]])));
    expectClose(from([1, 0.5, 0.5], [0.5, 0.25, 1, 0]), [0, 0, -1]);
    // The mesh is 2 by 4 by 1 metres: its corner lies at 1, 2, 0.5 from its middle.
    const length = Math.hypot(1, 2, 0.5);
    expectClose(from([1, 1, 1], [0.5, 0.25, 1, 0]), [0.5 / length, 2 / length, -1 / length]);
    expectClose(from([0.5, 0, 0.5], [1, 1, 0, 0]), [0, -1, 0]);
    expectClose(from([0.5, 0.5, 0.5], [1, 1, 1, 0]), [0, 0, 0]);
  });

  it('change: there and back again through every pair of spaces', () => {
    for (const is of [POINT, DIRECTION])
      for (const from of [OBJECT, WORLD, VIEW])
        for (const to of [OBJECT, WORLD, VIEW])
          expectClose(changed(changed([0.3, -1.2, 2.5], is, from, to), is, to, from), [0.3, -1.2, 2.5]);
  });

  it('tell position, normal and tangent as the object sees them', () => {
    expectClose(part('positionInSpaces()', 'object'), [1, 1, 0]);
    expectClose(part('normalInSpaces()', 'object'), [1, 0, 0]);
    expectClose(part('tangentInSpaces()', 'object'), [0, 1, 0]);
    expectClose(part('positionInSpaces()', 'view'), changed([5, 8, 5], POINT, WORLD, VIEW));
  });

  it('do not break an object that is flat', () => {
    const flat = new Map(globals).set('placeRowY', [0, 0, 0, 6]);
    for (const each of components(callShader('changedSpace(vec3,float,float,float)', [[1, 2, 3], 0, 1, 0], flat)))
      expect(Number.isFinite(each)).toBeTrue();
  });
});

describe('Reorder', () => {
  it('takes parts by number, and 0 or 1 beyond them', () => {
    expect(callVector('reordered(vec3,float,float,float)', [7, 8, 9], 2, 0, 4)).toEqual([9, 7, 1]);
    expect(callVector('reordered(vec3,float,float,float)', [7, 8, 9], 1, 1, 3)).toEqual([8, 8, 0]);
  });
});

describe('Blend', () => {
  const grey = (lower: number, upper: number, mode: number, amount = 1): number =>
    callVector('blendColours(vec3,vec3,float,float)', [lower, lower, lower], [upper, upper, upper], mode, amount)[0] ?? NaN;

  // W3C Compositing and Blending Level 1, section 10.1, for a backdrop of 0.4 and a source of 0.75.
  const wanted = [0.75, 0.3, 0.85, 0.6, 0.4, 0.75, 1, 0.2, 0.7, 0.4 + 0.5 * (Math.sqrt(0.4) - 0.4), 0.35, 1.15];
  wanted.forEach((value, mode) => {
    it(`mode ${mode} follows the standard`, () => {
      expect(grey(0.4, 0.75, mode)).toBeCloseTo(value, 5);
      expect(grey(0.4, 0.75, mode, 0)).toBeCloseTo(0.4, 6);
    });
  });

  it('dodges and burns without dividing by 0', () => {
    for (const lower of [0, 0.5, 1])
      for (const upper of [0, 0.5, 1]) for (const mode of [6, 7]) expect(Number.isFinite(grey(lower, upper, mode))).toBeTrue();
    expect([grey(0, 1, 6), grey(1, 0, 7), grey(0.5, 1, 6), grey(0.5, 0, 7)]).toEqual([0, 1, 1, 0]);
  });
});

describe('Remap with curve', () => {
  const remap = (value: number, curve: number): number =>
    callNumber('remapCurve(float,float,float,float,float,float)', value, 2, 4, 10, 20, curve);

  it('is straight at one half, passes the curve’s own value in the middle (Schlick 1994), and holds its ends', () => {
    expect(remap(2.5, 0.5)).toBeCloseTo(12.5, 5);
    for (const curve of [0.2, 0.5, 0.9]) {
      expect(remap(3, curve)).toBeCloseTo(10 + 10 * curve, 4);
      expect([remap(1, curve), remap(9, curve)]).toEqual([10, 20]);
    }
  });

  it('gives the low end where the first range is empty', () => {
    expect(callNumber('remapCurve(float,float,float,float,float,float)', 3, 2, 2, 10, 20, 0.3)).toBe(10);
  });
});
