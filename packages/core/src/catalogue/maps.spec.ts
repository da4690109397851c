import { FRONT_FACING } from '../ir/builtin-variables';
import { components, type Value } from '../ir/value';
import { callNumber, callShader, callVector, term } from '../testing/call-shader';

const frame = new Map<string, Value>([
  ['worldNormal', [0, 0, 1]],
  ['worldTangent', [1, 0, 0, 1]],
  ['worldWelded', [0, 3, 4]],
  [FRONT_FACING, [1]],
]);
const NORMAL = 'normalFromMap(vec3,float,float,bool,bool)';
const normalOf = (map: readonly number[], down = 0, two = 0): readonly number[] =>
  components(callShader(NORMAL, [map, 1, 1, [down], [two]], frame));

describe('Normals from maps', () => {
  const stored = (...normal: number[]): number[] => normal.map((each) => each * 0.5 + 0.5);

  it('read green up, or down where it is said', () => {
    const map = stored(0, 0.6, 0.8);
    expect(normalOf(map)[1]).toBeCloseTo(0.6, 5);
    expect(normalOf(map, 1)[1]).toBeCloseTo(-0.6, 5);
    expect(normalOf(map, 1)[2]).toBeCloseTo(0.8, 5);
  });

  it('follow the handedness of the mesh, so that mirrored halves bump the same way', () => {
    const mirrored = new Map([...frame, ['worldTangent', [1, 0, 0, -1]] as const]);
    const map = stored(0, 0.6, 0.8);
    expect(components(callShader(NORMAL, [map, 1, 1, [0], [0]], mirrored))[1]).toBeCloseTo(-0.6, 5);
  });

  it('turn with a map that lies rotated: what leans along the picture’s own u leans along the turned one', () => {
    const turnedBy = (angle: number, down = 0): readonly number[] =>
      components(
        callShader('normalFromMap(vec3,float,float,float,bool,bool,bool)', [stored(0.6, 0, 0.8), 1, 1, angle, [down], [0], [1]], frame),
      );
    expect(turnedBy(0)[0]).toBeCloseTo(0.6, 5);
    // `uvTransform` shows the picture turned counter-clockwise by a quarter: its right side is up, along the bitangent.
    expect(turnedBy(Math.PI / 2)[0]).toBeCloseTo(0, 5);
    expect(turnedBy(Math.PI / 2)[1]).toBeCloseTo(0.6, 5);
    expect(turnedBy(Math.PI / 2, 1)[1]).toBeCloseTo(0.6, 5);
  });

  it('find blue where the map has only two channels', () => {
    const [x, y, z] = normalOf([...stored(0.6, 0), 0.1], 0, 1);
    expect([x, y, z].map((each) => each!.toFixed(4))).toEqual(['0.6000', '0.0000', '0.8000']);
  });
});

describe('A UV transform', () => {
  it('repeats, shifts and turns as an image does by itself, and hands its angle on', () => {
    const moved = callShader('transformedUv(vec2,vec2,vec2,float)', [[0.75, 0.5], [2, 3], [0.1, 0.2], Math.PI / 2]);
    const fields = (moved as { fields: Record<string, Value> }).fields;
    // A quarter counter-clockwise, v down: what was right of the middle is read below it.
    const [u = 0, v = 0] = components(fields['uv']!);
    expect(u).toBeCloseTo(0.5 * 2 + 0.1, 5);
    expect(v).toBeCloseTo(0.75 * 3 + 0.2, 5);
    expect(components(fields['turn']!)[0]).toBeCloseTo(Math.PI / 2, 5);
  });
});

describe('Values of maps', () => {
  it('occlude by glTF’s strength', () => {
    expect(callNumber('occlusionOf(float,float)', 0.25, 1)).toBeCloseTo(0.25, 6);
    expect(callNumber('occlusionOf(float,float)', 0.25, 0.5)).toBeCloseTo(0.625, 6);
    expect(callNumber('occlusionOf(float,float)', 0.25, 0)).toBe(1);
  });

  it('turn gloss into roughness and into an exponent between the two ends', () => {
    expect(callNumber('roughnessFromGloss(float)', 0.2)).toBeCloseTo(0.8, 6);
    const exponent = (gloss: number, power = 1): number => callNumber('exponentFromGloss(float,float,float,float)', gloss, power, 2, 512);
    expect(exponent(0)).toBeCloseTo(2, 2);
    expect(exponent(1)).toBeCloseTo(512, 2);
    expect(exponent(0.5)).toBeCloseTo(32, 2);
    expect(exponent(0.5, 2)).toBeCloseTo(2 * 256 ** 0.25, 2);
  });

  it('occlude light from all around, and leave that of lamps', () => {
    const lit = {
      fields: {
        ambient: [1, 1, 1],
        diffuse: [2, 2, 2],
        specular: [3, 3, 3],
        reflection: [4, 4, 4],
        transmission: [5, 5, 5],
        emission: [6, 6, 6],
      },
    };
    const left = callShader('occludedLight(Lit,float)', [lit, 0.25]);
    expect(term(left, 'ambient')).toEqual([0.25, 0.25, 0.25]);
    expect(term(left, 'reflection')).toEqual([1, 1, 1]);
    for (const [name, value] of [
      ['diffuse', 2],
      ['specular', 3],
      ['transmission', 5],
      ['emission', 6],
    ] as const)
      expect(term(left, name)).toEqual([value, value, value]);
  });
});

describe('Displacement', () => {
  it('moves along the given normal, from the middle height', () => {
    const SIGNATURE = 'displacedByHeight(float,float,float,vec3)';
    expect(callVector(SIGNATURE, 1, 0.2, 0.5, [0, 1, 0]).map((each) => +each.toFixed(6))).toEqual([0, 0.1, 0]);
    expect(callVector(SIGNATURE, 0, 0.2, 0.5, [0, 1, 0]).map((each) => +each.toFixed(6))).toEqual([0, -0.1, 0]);
    expect(callVector(SIGNATURE, 0.5, 0.2, 0.5, [0, 1, 0]).map(Math.abs)).toEqual([0, 0, 0]);
  });

  it('goes by normals that corners share', () => {
    expect(components(callShader('surfaceWeldedNormal()', [], frame)).map((each) => +each.toFixed(6))).toEqual([0, 0.6, 0.8]);
  });
});

describe('Three sides', () => {
  it('weigh up to one, and the sharper the more the nearest axis counts', () => {
    const weights = (sharpness: number): readonly number[] => callVector('triplanarWeights(vec3,float)', [0.8, 0.6, 0], sharpness);
    for (const sharpness of [1, 6, 32]) expect(weights(sharpness).reduce((sum, each) => sum + each)).toBeCloseTo(1, 5);
    expect(weights(1)[0]).toBeCloseTo(0.8 / 1.4, 3);
    expect(weights(32)[0]).toBeGreaterThan(0.999);
  });

  it('show a picture upright and unmirrored from every side', () => {
    // Seen from outside: how u and v grow to the right and downwards.
    const sides = [
      { place: 'X', normal: [1, 0, 0], right: [0, 0, -1], down: [0, -1, 0] },
      { place: 'X', normal: [-1, 0, 0], right: [0, 0, 1], down: [0, -1, 0] },
      { place: 'Y', normal: [0, 1, 0], right: [1, 0, 0], down: [0, 0, 1] },
      { place: 'Y', normal: [0, -1, 0], right: [1, 0, 0], down: [0, 0, -1] },
      { place: 'Z', normal: [0, 0, 1], right: [1, 0, 0], down: [0, -1, 0] },
      { place: 'Z', normal: [0, 0, -1], right: [-1, 0, 0], down: [0, -1, 0] },
    ];
    for (const { place, normal, right, down } of sides) {
      const at = (point: number[]): number[] => callVector(`triplanarPlace${place}(vec3,vec3)`, point, normal).map((each) => each + 0);
      expect(at(right)).withContext(normal.join()).toEqual([1, 0]);
      expect(at(down)).withContext(normal.join()).toEqual([0, 1]);
    }
  });

  it('leave a normal as it is under a flat map, and lean it along the picture', () => {
    const SIGNATURE = 'triplanarLean(vec3,vec2,vec3,vec3,vec3,vec3)';
    const lean = (map: number[]): readonly number[] => callVector(SIGNATURE, map, [1, 1], [1, 0, 0], [0, 1, 0], [0, 0, 1], [0, 0.6, 0.8]);
    lean([0.5, 0.5, 1]).forEach((each, axis) => expect(each).toBeCloseTo([0, 0.6, 0.8][axis]!, 6));
    expect(lean([1, 0.5, 0.5])[0]).toBeCloseTo(1, 6);
    expect(lean([0.5, 1, 0.5])[1]).toBeCloseTo(1.6, 6);
  });
});
