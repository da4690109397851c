import { newLight } from '../document/new-lights';
import { newRig } from '../document/new-documents';
import { callShader, rigGlobals, term } from '../testing/call-shader';
import { lightParts, standingLight } from './lights';

describe('Parts of a light', () => {
  const tints = [
    [0, 0, 1],
    [1, 0, 0],
    [0, 1, 0],
  ];

  it('have the colour of their light while they have none of their own, and carry its intensity and their weight', () => {
    const sun = newLight('sun', { weights: [0.5, 1, 2], colour: [1, 0.5, 0], intensity: 2 });
    expect(lightParts(standingLight('sun', sun, 0))).toEqual([
      [1, 0.5, 0, 0.5],
      [2, 1, 0, 1],
      [4, 2, 0, 2],
    ]);
    expect(
      lightParts(undefined)
        .flat()
        .every((each) => each === 0),
    ).toBeTrue();
  });

  it('tint what is scattered, what is mirrored and what comes from all sides, each by itself', () => {
    const sun = newLight('sun', { direction: [0, 1, 0], colour: [1, 1, 1], intensity: 1, weights: [1, 1, 1], tints });
    const rig = { ...newRig(''), sun, ambient: newLight('ambient', { on: false }) };
    const globals = new Map([...rigGlobals(rig), ['worldNormal', [0, 1, 0]], ['eyePosition', [0, 5, 0, 1]]] as const);
    const lit = callShader('blinnPhong(vec3,vec3,float,vec3,vec3)', [[1, 1, 1], [1, 1, 1], 8, [0, 1, 0], [0, 1, 0]], globals);
    const [ambient, diffuse, specular] = ['ambient', 'diffuse', 'specular'].map((name) => term(lit, name));
    expect(ambient!.map((each) => each > 0)).toEqual([false, false, true]);
    expect(diffuse!.map((each) => each > 0)).toEqual([true, false, false]);
    expect(specular!.map((each) => each > 0)).toEqual([false, true, false]);
  });

  it('change colour over time through a gradient, there and back', () => {
    const motion = { kind: 'colours', speed: 1, phase: 0, reach: 1, through: [1, 0, 0, 0, 0, 0, 1, 1] } as const;
    const light = newLight('point', { intensity: 2, motion });
    const at = (seconds: number): readonly number[] => standingLight('l', light, seconds).colour;
    expect(at(0)).toEqual([2, 0, 0]);
    expect(at(0.25)).toEqual([1, 0, 1]);
    expect(at(0.5)).toEqual([0, 0, 2]);
    expect(at(0.75)).toEqual([1, 0, 1]);
  });
});
