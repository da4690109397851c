import { FRONT_FACING } from '../ir/builtin-variables';
import { evaluateCall } from '../ir/evaluate';
import { isStruct, type Value } from '../ir/value';
import { callNumber, callVector, oneLight, rigGlobals, term } from '../testing/call-shader';
import { albedosByHand, overHemisphere } from '../testing/quadrature';
import { whiteRoom } from '../testing/white-room';
import { withoutImages } from '../testing/without-images';
import { featuredKind } from './features';
import { library } from './library';

const UP = [0, 0, 1] as const;
const TERMS = ['ambient', 'diffuse', 'specular', 'reflection', 'transmission', 'emission'];

type Inlets = Readonly<Record<string, number | readonly number[]>>;

/** A surface that faces +z, seen from a direction whose cosine to it is given. */
function seenAt(globals: ReadonlyMap<string, Value>, nDotV: number): Map<string, Value> {
  return new Map<string, Value>([
    ...globals,
    ['eyePosition', [Math.sqrt(1 - nDotV * nDotV), 0, nDotV, 0]],
    ['worldNormal', [...UP]],
    ['worldTangent', [1, 0, 0, 1]],
    [FRONT_FACING, [1]],
    ['partDepth', [0, 0, 0, 0]],
    ['placeRowX', [1, 0, 0, 0]],
    ['placeRowY', [0, 1, 0, 0]],
    ['placeRowZ', [0, 0, 1, 0]],
  ]);
}

const KIND = library().kinds.get('physicalSurface')!;

/** The node with some features on, its inlets as the kind has them or as given. */
function lightOf(
  features: readonly string[],
  given: Inlets,
  globals: ReadonlyMap<string, Value>,
  albedos: readonly number[],
  behind = 1,
): Value {
  const kind = featuredKind(KIND, features);
  const functions = new Map(withoutImages({ 'albedosAt(float,float)': albedos, 'blurredThrough(vec2,float)': [behind, behind, behind] }));
  for (const each of kind.functions ?? []) functions.set(each.signature, each);
  const args = kind.inlets.map((inlet): Value => {
    const value = given[inlet.name] ?? ('value' in inlet.default ? inlet.default.value : UP);
    return typeof value === 'number' ? [value] : value;
  });
  return evaluateCall(kind.overloads[0]!, args, { functions, globals }).result;
}

function total(lit: Value): readonly number[] {
  return [0, 1, 2].map((channel) => TERMS.reduce((sum, name) => sum + (term(lit, name)[channel] ?? 0), 0));
}

const WHITE = [1, 1, 1];
const ROUGHNESSES = [0.03, 0.2, 0.5, 0.8, 1];
const COSINES = [0.08, 0.3, 0.7, 0.999];

describe('The physical surface in a white room', () => {
  const room = rigGlobals(whiteRoom());

  for (const metallic of [0, 0.5, 1])
    it(`disappears when it is white and ${metallic} metal, rough or not, from any side`, () => {
      for (const roughness of ROUGHNESSES)
        for (const nDotV of COSINES) {
          const lit = lightOf([], { baseColour: WHITE, metallic, roughness }, seenAt(room, nDotV), albedosByHand(nDotV, roughness));
          for (const channel of total(lit))
            expect(Math.abs(channel - 1))
              .withContext(`${roughness} ${nDotV}`)
              .toBeLessThan(0.005);
        }
    });

  const layers: readonly (readonly [string, readonly string[], Inlets])[] = [
    ['a coat', ['hasCoat'], { coat: 1, coatRoughness: 0.3 }],
    ['a coat over metal', ['hasCoat'], { metallic: 1, coat: 0.7 }],
    ['sheen', ['hasSheen'], { sheenColour: WHITE, sheenRoughness: 0.5 }],
    ['sheen under a coat', ['hasSheen', 'hasCoat'], { sheenColour: [0.9, 0.5, 0.2] }],
    ['brushed metal', ['hasAnisotropy'], { metallic: 1, anisotropy: 1, roughness: 0.4 }],
    ['a film', ['hasIridescence'], { filmThickness: 350 }],
    ['a film on metal', ['hasIridescence'], { metallic: 1, filmThickness: 500 }],
    ['clear glass', ['hasTransmission'], { roughness: 0 }],
    ['a body of glass with a prism', ['hasTransmission', 'hasVolume', 'hasDispersion'], { thickness: 0.3, dispersion: 1 }],
    ['bright specular', ['hasSpecular'], { ior: 2.4, specularColour: [1, 0.6, 0.3] }],
    ['weak specular', ['hasSpecular'], { specular: 0 }],
  ];
  for (const [name, features, given] of layers)
    it(`never gives back more than it gets with ${name}`, () => {
      for (const nDotV of COSINES) {
        const roughness = (given['roughness'] as number | undefined) ?? 0.5;
        const lit = lightOf(
          features,
          { baseColour: WHITE, ...given },
          seenAt(room, nDotV),
          albedosByHand(nDotV, Math.max(roughness, 0.03)),
        );
        for (const channel of total(lit)) {
          expect(channel).withContext(`${nDotV}`).toBeLessThan(1.005);
          expect(channel).withContext(`${nDotV}`).toBeGreaterThan(0.6);
        }
      }
    });

  it('loses what glass absorbs, by the law of the distance', () => {
    const lit = lightOf(
      ['hasTransmission', 'hasVolume'],
      { baseColour: WHITE, roughness: 0, thickness: 0.6, absorbed: [0.5, 0.25, 1], absorbedAt: 0.3 },
      seenAt(room, 0.999),
      albedosByHand(0.999, 0.03),
    );
    const [red = 0, green = 0, blue = 0] = term(lit, 'transmission');
    expect(red / blue).toBeCloseTo(0.25, 6);
    expect(green / blue).toBeCloseTo(0.0625, 6);
  });
});

describe('The physical surface under lights', () => {
  /** What comes back of a light from everywhere, light by light. */
  function added(features: readonly string[], given: Inlets, nDotV: number, albedos: readonly number[]): number {
    let sum = 0;
    overHemisphere(40, 48, (direction, angle) => {
      const lit = lightOf(features, given, seenAt(oneLight(direction), nDotV), albedos);
      // Light 1 is a radiance of π over all directions it comes from: a lambert surface gives back its cosine.
      sum += ((total(lit)[0] ?? 0) * angle) / Math.PI;
    });
    return sum;
  }

  for (const metallic of [0, 1])
    it(`adds up to all that arrives, metal ${metallic}`, () => {
      for (const nDotV of [0.35, 0.9]) {
        const given = { baseColour: WHITE, metallic, roughness: 0.7 };
        expect(added([], given, nDotV, albedosByHand(nDotV, 0.7)))
          .withContext(`${nDotV}`)
          .toBeCloseTo(1, 1.7);
      }
    });

  it('mirrors as the formula of the standard says, before what many bounces add', () => {
    // f0 of 1 with a table that sums to 1: no bounce is lost, and what is left is D V F.
    const [light, eye] = [0.4, 0.8];
    const direction = [-Math.sqrt(1 - light * light), 0, light];
    const lit = lightOf([], { baseColour: WHITE, metallic: 1, roughness: 0.6 }, seenAt(oneLight(direction), eye), [0.9, 0.1, 0]);
    const half = [Math.sqrt(1 - eye * eye) + (direction[0] ?? 0), 0, eye + light];
    const nDotH = (half[2] ?? 0) / Math.hypot(...half);
    const alpha2 = 0.6 ** 4;
    const density = alpha2 / (Math.PI * (nDotH * nDotH * (alpha2 - 1) + 1) ** 2);
    const masking = (c: number): number => Math.sqrt(alpha2 + (1 - alpha2) * c * c);
    const visibility = 0.5 / (light * masking(eye) + eye * masking(light));
    expect(term(lit, 'specular')[0]).toBeCloseTo(Math.PI * density * visibility * light, 5);
  });

  it('answers alike when light and eye change places', () => {
    for (const [features, given] of [
      [[], { metallic: 1, roughness: 0.4 }],
      [['hasAnisotropy'], { metallic: 1, roughness: 0.4, anisotropy: 0.8 }],
    ] as const)
      for (const [a, b] of [
        [0.3, 0.9],
        [0.6, 0.5],
      ] as const) {
        const one = lightOf(features, given, seenAt(oneLight([-Math.sqrt(1 - a * a), 0, a]), b), [0.9, 0.1, 0]);
        const other = lightOf(features, given, seenAt(oneLight([-Math.sqrt(1 - b * b), 0, b]), a), [0.9, 0.1, 0]);
        expect((term(one, 'specular')[0] ?? 0) / a).toBeCloseTo((term(other, 'specular')[0] ?? 0) / b, 5);
      }
  });

  it('lets light from behind through, in its own colour', () => {
    const behind = seenAt(oneLight([0, 0.1, -1]), 0.99);
    const lit = lightOf(['hasTransmission'], { baseColour: [1, 0.2, 0], roughness: 0.4 }, behind, albedosByHand(0.99, 0.4), 0);
    const [red = 0, green = 0] = term(lit, 'transmission');
    expect(red).toBeGreaterThan(0.1);
    expect(green / red).toBeCloseTo(0.2, 5);
    expect(term(lightOf([], { baseColour: WHITE }, behind, [0.9, 0.1, 0]), 'transmission')).toEqual([0, 0, 0]);
  });
});

describe('Substances', () => {
  it('mirror what their indices say', () => {
    // Indices at the sodium line: Hecht 2002, "Optics", table 4.1; reflectances by his equation 4.47.
    const published: readonly (readonly [string, number, number])[] = [
      ['water', 1.333, 0.0204],
      ['crown glass', 1.52, 0.0426],
      ['flint glass', 1.66, 0.0616],
      ['diamond', 2.417, 0.172],
    ];
    for (const [name, ior, expected] of published) {
      expect(callNumber('reflectivityFromIor(float)', ior)).withContext(name).toBeCloseTo(expected, 3);
      expect(callNumber('iorFromReflectivity(float)', expected)).withContext(name).toBeCloseTo(ior, 1.7);
    }
  });

  it('absorb half over each such distance', () => {
    expect(callVector('absorption(vec3,float,float)', [0.5, 0.5, 1], 0.2, 0.4)).toEqual([jasmine.any(Number), jasmine.any(Number), 1]);
    expect(callNumber('absorption(vec3,float,float)', [0.5, 1, 1], 0.2, 0.4)).toBeCloseTo(0.25, 6);
    expect(callVector('absorption(vec3,float,float)', [0.5, 0.5, 0.5], 0, 3)).toEqual([1, 1, 1]);
  });

  it('show no film’s colours where the film has no thickness', () => {
    const bare = callVector('filmReflectance(vec3,float,float,float)', [0.04, 0.04, 0.04], 1.3, 0, 0.8);
    // Two terms of the paper’s series: it comes near, not all the way.
    for (const channel of bare) expect(Math.abs(channel - 0.04 - 0.96 * 0.2 ** 5)).toBeLessThan(0.012);
  });

  it('show colours that go round as a film grows: none is always the strongest', () => {
    const strongest = new Set<number>();
    for (let nanometres = 120; nanometres <= 700; nanometres += 20) {
      const mirrored = callVector('filmReflectance(vec3,float,float,float)', [0.2, 0.2, 0.2], 1.4, nanometres, 1);
      strongest.add(mirrored.indexOf(Math.max(...mirrored)));
      expect(Math.min(...mirrored)).toBeGreaterThanOrEqual(0);
      expect(Math.max(...mirrored)).toBeLessThanOrEqual(1);
    }
    expect([...strongest].sort()).toEqual([0, 1, 2]);
  });
});

describe('A feature that is off', () => {
  it('leaves neither inlets nor code', () => {
    const plain = featuredKind(KIND, []);
    expect(plain.inlets.map(({ name }) => name)).toEqual(['baseColour', 'metallic', 'roughness', 'normal', 'occlusion']);
    const text = JSON.stringify(plain.overloads[0]?.body);
    for (const gone of ['seenThrough', 'clearCoat', 'sheenLayer', 'brushedLobe', 'filmReflectance', 'passing'])
      expect(text).withContext(gone).not.toContain(gone);
    expect(featuredKind(KIND, ['hasCoat'])).toBe(featuredKind(KIND, ['hasCoat']));
    expect(featuredKind(KIND, ['hasCoat']).inlets.length).toBe(8);
  });

  it('gives the same light as the whole function with it switched off', () => {
    const globals = seenAt(oneLight([0.3, 0.2, 0.9], [1, 0.8, 0.6], [0.2, 0.2, 0.3]), 0.7);
    const functions = withoutImages({ 'albedosAt(float,float)': [0.7, 0.1, 0.3] });
    const whole = KIND.overloads[0]!;
    const args = whole.parameters.map(({ name, type }): Value => {
      const inlet = KIND.inlets.find((each) => each.name === name);
      if (!inlet) return [name === 'hasCoat' ? 1 : 0];
      return 'value' in inlet.default ? inlet.default.value : type.kind === 'vector' ? UP : [0];
    });
    const expected = evaluateCall(whole, args, { functions, globals }).result;
    expect(total(lightOf(['hasCoat'], {}, globals, [0.7, 0.1, 0.3]))).toEqual(total(expected));
    expect(isStruct(expected)).toBeTrue();
  });
});
