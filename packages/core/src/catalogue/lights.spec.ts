import type { LightRig, RigLight } from '@brelvin/contract';
import { newRig } from '../document/new-documents';
import { newLight } from '../document/new-lights';
import { components, isStruct, type Value } from '../ir/value';
import { callNumber, callShader, oneLight, rigGlobals, term } from '../testing/call-shader';

const UP = [0, 1, 0];
const WHITE = [1, 1, 1];

/** A rig with just these lights. */
function rigOf(...lights: RigLight[]): LightRig {
  const off = { on: false };
  return {
    ...newRig(''),
    sun: newLight('sun', off),
    ambient: newLight('ambient', off),
    lights: Object.fromEntries(lights.map((light, order) => [`l${order}`, { ...light, order }])),
  };
}

function field(value: Value, name: string): readonly number[] {
  return isStruct(value) ? components(value.fields[name] ?? []) : [];
}

/** What arrives from the first light of a rig at a point. */
function arriving(rig: LightRig, position: readonly number[], seconds = 0): readonly number[] {
  return field(callShader('lightHere(int)', [0], rigGlobals(rig, position, seconds)), 'colour');
}

describe('Falloff', () => {
  // KHR_lights_punctual: max(min(1 − (distance / range)⁴, 1), 0) / distance².
  it('is windowed by range as KHR_lights_punctual says', () => {
    const lamp = (distance: number, range: number): number => {
      const rig = rigOf(newLight('point', { position: [0, distance, 0], falloff: 'windowed', range }));
      return arriving(rig, [0, 0, 0])[0] ?? NaN;
    };
    for (const [distance, range] of [
      [0.5, 4],
      [1, 4],
      [2, 4],
      [3.9, 4],
      [2, 2.5],
    ] as const) {
      expect(lamp(distance, range)).toBeCloseTo(Math.max(Math.min(1 - (distance / range) ** 4, 1), 0) / distance ** 2, 5);
    }
    expect(lamp(4, 4)).toBe(0);
    expect(lamp(9, 4)).toBe(0);
  });

  it('is the inverse square, or none, and finite inside the light', () => {
    const at = (falloff: RigLight['falloff'], distance: number): number =>
      arriving(rigOf(newLight('point', { position: [0, distance, 0], falloff })), [0, 0, 0])[0] ?? NaN;
    expect(at('inverseSquare', 2)).toBeCloseTo(0.25, 6);
    expect(at('inverseSquare', 1)).toBeCloseTo(1, 6);
    expect(at('none', 7)).toBe(1);
    for (const falloff of ['none', 'inverseSquare', 'windowed'] as const) expect(Number.isFinite(at(falloff, 0))).toBeTrue();
  });

  it('stays finite for a range of almost nothing', () => {
    expect(callNumber('windowedFalloff(float,float)', 0.5, 0)).toBe(0);
    expect(Number.isFinite(callNumber('windowedFalloff(float,float)', 0, 0))).toBeTrue();
  });
});

describe('A spot’s cone', () => {
  const spot = (angle: number, cone = [0.3, 0.5]): number => {
    const light = newLight('spot', { position: [0, 1, 0], direction: [Math.sin(angle), Math.cos(angle), 0], cone, falloff: 'none' });
    return arriving(rigOf(light), [0, 0, 0])[0] ?? NaN;
  };

  // KHR_lights_punctual, "Inner and outer cone angles".
  it('falls from the inner to the outer angle as KHR_lights_punctual says', () => {
    for (const angle of [0, 0.2, 0.3, 0.35, 0.4, 0.45, 0.499]) {
      const scale = 1 / Math.max(0.001, Math.cos(0.3) - Math.cos(0.5));
      const wanted = Math.min(Math.max(Math.cos(angle) * scale - Math.cos(0.5) * scale, 0), 1) ** 2;
      expect(spot(angle)).toBeCloseTo(wanted, 4);
    }
    expect(spot(0.51)).toBe(0);
    expect(spot(Math.PI)).toBe(0);
  });

  it('has a crisp edge where both angles are the same, and where they are the wrong way round', () => {
    for (const cone of [
      [0.4, 0.4],
      [0.9, 0.4],
    ]) {
      expect(spot(0.37, cone)).toBeCloseTo(1, 5);
      expect(spot(0.41, cone)).toBe(0);
    }
  });
});

describe('Lights of a rig', () => {
  it('light from the sky and the ground by how high a surface faces', () => {
    const rig = rigOf(newLight('hemisphere', { colour: [0, 0, 1], ground: [1, 0, 0], intensity: 2 }));
    const facing = (normal: number[]): readonly number[] =>
      term(callShader('lambert(vec3,vec3)', [WHITE, normal], rigGlobals(rig)), 'ambient');
    expect(facing([0, 1, 0])).toEqual([0, 0, 2]);
    expect(facing([0, -1, 0])).toEqual([2, 0, 0]);
    expect(facing([1, 0, 0])).toEqual([1, 0, 1]);
  });

  it('have a number each in their order, those that are off left out', () => {
    const rig = rigOf(
      newLight('point', { on: false }),
      newLight('hemisphere'),
      newLight('point', { position: [0, 3, 0], colour: [1, 0, 0] }),
    );
    const first = callShader('oneLight(float)', [1], rigGlobals(rig));
    expect([field(first, 'direction'), field(first, 'colour'), field(first, 'distance')]).toEqual([UP, [1, 0, 0], [3]]);
    const second = callShader('oneLight(float)', [2], rigGlobals(rig));
    expect(field(second, 'colour')).toEqual([0, 0, 0]);
    for (const number of [0, -5, 99])
      expect(field(callShader('oneLight(float)', [number], rigGlobals(rig)), 'colour').every(Number.isFinite)).toBeTrue();
  });

  it('are eight at the most; more are left dark', () => {
    const many = rigOf(...Array.from({ length: 12 }, () => newLight('sun', { direction: UP, intensity: 1 })));
    const { diffuse } = { diffuse: term(callShader('lambert(vec3,vec3)', [WHITE, UP], rigGlobals(many)), 'diffuse') };
    expect(diffuse[0]).toBeCloseTo(8, 5);
  });

  it('weigh their ambient, diffuse and specular part', () => {
    const light = newLight('sun', { direction: UP, weights: [0.25, 0.5, 2] });
    const globals = rigGlobals(rigOf(light));
    const lit = callShader('blinnPhong(vec3,vec3,float,vec3,vec3)', [WHITE, WHITE, 8, UP, UP], globals);
    expect([term(lit, 'ambient')[0], term(lit, 'diffuse')[0], term(lit, 'specular')[0]]).toEqual([0.25, 0.5, 2]);
  });

  it('orbit, swing and change colour on their own clock', () => {
    const orbiting = rigOf(newLight('sun', { direction: [0, 0, 1], motion: { kind: 'orbit', speed: 0.25, phase: 0, reach: 1 } }));
    const toLight = (rig: LightRig, seconds: number): readonly number[] =>
      field(callShader('lightHere(int)', [0], rigGlobals(rig, [0, 0, 0], seconds)), 'toLight');
    expect(toLight(orbiting, 1)[0]).toBeCloseTo(1, 6);
    const swaying = rigOf(newLight('point', { position: [0, 2, 0], motion: { kind: 'sway', speed: 0.5, phase: 0, reach: 2 } }));
    expect(toLight(swaying, 0.5)[0]).toBeCloseTo(Math.SQRT1_2, 5);
    expect(toLight(swaying, 1)[0]).toBeCloseTo(0, 5);
    const circling = rigOf(newLight('sun', { motion: { kind: 'colours', speed: 1, phase: 0, reach: 1 } }));
    const [red, green, blue] = [0, 1 / 3, 2 / 3].map((seconds) => arriving(circling, [0, 0, 0], seconds));
    expect([red?.[0], green?.[1], blue?.[2]].map((each) => Math.round((each ?? 0) * 1e4) / 1e4)).toEqual([1, 1, 1]);
  });
});

describe('Light models', () => {
  const white = oneLight(UP);
  const tilted = (angle: number): number[] => [Math.sin(angle), Math.cos(angle), 0];

  it('read 1 on white that faces a light of 1', () => {
    for (const [signature, ...args] of [
      ['lambert(vec3,vec3)', WHITE, UP],
      ['wrapped(vec3,float,vec3)', WHITE, 0.5, UP],
      ['orenNayar(vec3,float,vec3,vec3)', WHITE, 0, UP, UP],
      ['phong(vec3,vec3,float,vec3,vec3)', WHITE, WHITE, 8, UP, UP],
      ['bandsByPlace(vec3,float,float,float,float,float,vec3,vec3)', WHITE, 0, 0.5, 0.5, 0, 0, WHITE, UP],
    ] as const) {
      expect(term(callShader(signature, args, white), 'diffuse')[0])
        .withContext(signature)
        .toBeCloseTo(1, 5);
    }
  });

  it('wrap reaches where Lambert is dark', () => {
    const at = (wrap: number, angle: number): number =>
      term(callShader('wrapped(vec3,float,vec3)', [WHITE, wrap, tilted(angle)], white), 'diffuse')[0] ?? NaN;
    expect(at(0, 2)).toBe(0);
    expect(at(0.5, Math.PI / 2)).toBeCloseTo(0.5 / 1.5, 5);
    expect(at(1, Math.PI)).toBeCloseTo(0, 6);
  });

  // Oren and Nayar 1994, equation 30, written with angles.
  it('follow Oren and Nayar’s equation with angles', () => {
    const sigma = 0.6;
    const a = 1 - (0.5 * sigma ** 2) / (sigma ** 2 + 0.33);
    const b = (0.45 * sigma ** 2) / (sigma ** 2 + 0.09);
    for (const [light, eye] of [
      [0.4, 0.9],
      [1.1, 0.3],
      [0.8, -0.8],
    ] as const) {
      const globals = oneLight(tilted(light));
      const found = term(callShader('orenNayar(vec3,float,vec3,vec3)', [WHITE, sigma, UP, tilted(eye)], globals), 'diffuse')[0];
      const [alpha, beta] = [Math.max(light, Math.abs(eye)), Math.min(light, Math.abs(eye))];
      const between = light * eye > 0 ? 1 : -1;
      const wanted = Math.cos(light) * (a + b * Math.max(0, between) * Math.sin(alpha) * Math.tan(beta));
      expect(found).toBeCloseTo(wanted, 4);
    }
  });

  it('match the width of Phong’s and Blinn-Phong’s spots', () => {
    for (const exponent of [2, 8, 40, 200]) {
      const other = callNumber('matchingExponent(float)', exponent);
      /** The angle between eye and mirrored light at which a spot is half as bright. */
      const halfWidth = (signature: string, n: number): number => {
        let [low, high] = [0, Math.PI / 2];
        for (let step = 0; step < 40; step++) {
          const middle = (low + high) / 2;
          const globals = oneLight(UP);
          const value = term(callShader(signature, [[0, 0, 0], WHITE, n, UP, tilted(middle)], globals), 'specular')[0] ?? 0;
          if (value > 0.5) low = middle;
          else high = middle;
        }
        return low;
      };
      const one = halfWidth('phong(vec3,vec3,float,vec3,vec3)', exponent);
      expect(halfWidth('blinnPhong(vec3,vec3,float,vec3,vec3)', other) / one).toBeCloseTo(1, 3);
    }
  });

  it('draw bands by their width and by their places', () => {
    const wide = (angle: number): number =>
      term(callShader('bandsByWidth(vec3,float,float,float,vec3,vec3)', [WHITE, 0.5, 0, 0.2, WHITE, tilted(angle)], white), 'diffuse')[0] ??
      NaN;
    expect([wide(0), wide(1.4)].map((each) => Math.round(each * 1e3) / 1e3)).toEqual([1, 0.2]);
    const placed = (angle: number): number =>
      term(
        callShader('bandsByPlace(vec3,float,float,float,float,float,vec3,vec3)', [WHITE, 0.1, 0.7, 0.4, 0, 0, WHITE, tilted(angle)], white),
        'diffuse',
      )[0] ?? NaN;
    expect([placed(0.2), placed(1.1), placed(1.6)].map((each) => Math.round(each * 1e3) / 1e3)).toEqual([1, 0.4, 0]);
  });

  it('draw a hard spot as a disc, and none on the side away from the light', () => {
    const spot = (angle: number, normal = UP): number =>
      term(callShader('hardSpot(vec3,float,float,vec3,vec3)', [WHITE, 0.1, 0.01, normal, tilted(angle)], white), 'specular')[0] ?? NaN;
    // The half vector turns half as far as the eye; a tenth of a quarter turn is 0.157.
    expect([spot(0), spot(0.28), spot(0.36)]).toEqual([1, 1, 0]);
    expect(spot(0, [0, -1, 0])).toBe(0);
  });

  it('stretch a highlight across the grain and not along it', () => {
    const at = (normal: number[], grain: number[]): number =>
      term(callShader('stretchedHighlight(vec3,float,float,vec3,vec3,vec3)', [WHITE, 60, 0, grain, normal, UP], white), 'specular')[0] ??
      NaN;
    expect(at(tilted(0.5), [0, 0, 1])).toBeCloseTo(1, 3);
    expect(at(tilted(0.5), [Math.cos(0.5), -Math.sin(0.5), 0])).toBeLessThan(0.001);
  });

  it('look a matcap up in the middle where a surface faces the eye', () => {
    const globals = rigGlobals(rigOf());
    const eye = globals.get('eyePosition') as readonly number[];
    const length = Math.hypot(...eye.slice(0, 3));
    const toEye = eye.slice(0, 3).map((each) => each / length);
    const [u = NaN, v = NaN] = components(callShader('matcapPlace(vec3,vec3)', [toEye, toEye], globals));
    expect([u, v].map((each) => Math.round(each * 1e5) / 1e5)).toEqual([0.5, 0.5]);
    const [, above = NaN] = components(callShader('matcapPlace(vec3,vec3)', [UP, toEye], globals));
    expect(above).withContext('v runs downwards').toBeLessThan(0.2);
  });
});
