import type { GraphNode, LightRig, Material, NearOcclusion, OrbitCamera, StageSet } from '@brelvin/contract';
import {
  compileFor,
  newFloorMaterial,
  newLight,
  newMaterial,
  newMesh,
  newRig,
  newSet,
  StageScene,
  START_CAMERA,
  WHOLE_PICTURE,
  type FrameRenderer,
  type Inspection,
  type Device,
} from '@brelvin/core';
import { bring, withRenderer } from './testing/with-renderer';

const SIDE = 128;
const size = { width: SIDE, height: SIDE };
const above: OrbitCamera = { ...START_CAMERA, azimuth: 0, elevation: 1.2, distance: 7, target: [0, 0, 0] };

const rigWith = (change: Partial<LightRig> = {}): LightRig => ({
  ...newRig('r'),
  sun: newLight('sun', { direction: [0.6, 0.8, 0], casts: true, softness: 0.05 }),
  ambient: newLight('ambient', { intensity: 0.4 }),
  background: [0.1, 0.2, 0.3],
  ...change,
});
const AMBIENT: Partial<LightRig> = { sun: newLight('sun', { on: false }), ambient: newLight('ambient', { intensity: 1 }) };
const NEAR: NearOcclusion = { radius: 4, strength: 1 };

/** What stands on a floor, and the floor. */
describe('The ground', () => {
  let device: Device;
  let renderer: FrameRenderer;

  withRenderer(SIDE, (open) => ({ device, renderer } = open));

  const standing = (change: Partial<StageSet['floor']> = {}): StageSet => ({
    ...newSet('s', 'cube', { size: 1 }),
    floor: { shown: true, height: -0.5, size: 8, ...change },
  });

  async function pictureOf(
    set: StageSet,
    rig: LightRig,
    {
      material = newMaterial('m'),
      camera = above,
      inspection,
    }: { material?: Material; camera?: OrbitCamera; inspection?: Inspection } = {},
  ): Promise<Float32Array> {
    const stage = new StageScene(device, renderer);
    stage.setBench('m');
    stage.show(set);
    for (const [id, document] of Object.entries({ m: material, floor: newFloorMaterial() })) {
      const { compiled } = compileFor(device.target, document, undefined, { variants: ['shadowed', 'occluded', 'inspect'] });
      const surface = await bring(device, compiled!);
      stage.assign(id, { material: document, surface });
    }
    const pixels = await renderer.measure({ items: stage.items(0), camera, rig, seconds: 0, casters: stage.casters(0), inspection }, size);
    stage.destroy();
    return pixels;
  }

  const at = (pixels: Float32Array, x: number, y: number): number[] => [...pixels.slice((y * SIDE + x) * 4, (y * SIDE + x) * 4 + 4)];
  const light = (pixels: Float32Array, x: number, y: number): number => at(pixels, x, y)[1] ?? NaN;

  it('shows the shadow of what stands on it, by its own plain material', async () => {
    const shadowed = await pictureOf(standing(), rigWith());
    const plain = await pictureOf(standing(), rigWith({ sun: newLight('sun', { direction: [0.6, 0.8, 0] }) }));
    // Left of the cube, away from the sun.
    expect(light(shadowed, 44, 64)).toBeLessThan(light(plain, 44, 64) * 0.6);
    expect(light(shadowed, 92, 64)).toBeCloseTo(light(plain, 92, 64), 2);
  });

  it('fades into what is behind it: one colour, a gradient, or nothing', async () => {
    const low: OrbitCamera = { ...above, elevation: 0.5 };
    const beyond = await pictureOf(
      { ...standing(), floor: { shown: false, height: 0, size: 1 } },
      rigWith({ backgroundTop: [0.6, 0.1, 0.1] }),
      { camera: low },
    );
    const faded = await pictureOf(standing(), rigWith({ backgroundTop: [0.6, 0.1, 0.1] }), { camera: low });
    const solid = await pictureOf(standing({ look: 'solid' }), rigWith({ backgroundTop: [0.6, 0.1, 0.1] }), { camera: low });
    // Above the floor nothing changes; near its middle it is as without fading; between there is no edge.
    expect(at(faded, 64, 4)).toEqual(at(beyond, 64, 4));
    expect(light(faded, 92, 84)).toBeCloseTo(light(solid, 92, 84), 1);
    const steps = (pixels: Float32Array): number =>
      Math.max(...Array.from({ length: 60 }, (_, y) => Math.abs(light(pixels, 20, y + 1) - light(pixels, 20, y))));
    expect(steps(faded)).toBeLessThan(0.05);
    expect(steps(solid)).toBeGreaterThan(0.15);
    const empty = await pictureOf(standing(), rigWith({ transparent: true }), { camera: low });
    expect([at(empty, 64, 4)[3], at(empty, 92, 84)[3]]).toEqual([0, 1]);
  });

  it('may be nothing but shadow, over what is behind it and over nothing', async () => {
    const rig = rigWith();
    const only = await pictureOf(standing({ look: 'shadow' }), rig);
    expect(at(only, 92, 64).map((each) => Math.round(each * 100) / 100)).toEqual([0.1, 0.2, 0.3, 1]);
    expect(light(only, 44, 64)).toBeLessThan(0.13);
    const empty = await pictureOf(standing({ look: 'shadow' }), rigWith({ transparent: true }));
    expect(at(empty, 92, 64)[3]).toBeLessThan(0.02);
    expect(at(empty, 44, 64)[3]).toBeGreaterThan(0.3);
    expect(at(empty, 44, 64).slice(0, 3)).toEqual([0, 0, 0]);
  });

  it('gets softer shadows the farther away what throws them is', async () => {
    const hovering = (height: number): StageSet => {
      const placing = { position: [0, height - 0.5, 0], turn: [-Math.PI / 2, 0, 0], scale: [1, 1, 1] };
      return { ...standing(), meshes: { sheet: newMesh('plane', { width: 1.4, height: 1.4 }, { placing }) } };
    };
    const sun = newLight('sun', { direction: [0.6, 0.8, 0], casts: true, softness: 0.06 });
    // Close to the left edge of the shadow, along a row: pixels of the floor that are neither dark nor lit.
    const edge = async (height: number): Promise<number> => {
      const camera: OrbitCamera = { ...above, elevation: 1.5, distance: 2.5, target: [-0.7 - height * 0.75, -0.5, 0] };
      const seen = await pictureOf(hovering(height), rigWith({ sun }), { camera, inspection: { ...WHOLE_PICTURE, view: 'shadow' } });
      return Array.from({ length: SIDE }, (_, x) => light(seen, x, 64)).filter((value) => value > 0.02 && value < 0.95).length;
    };
    const [near, far] = [await edge(0.3), await edge(1.2)];
    expect(far).toBeGreaterThanOrEqual(near * 2);
    expect(far).toBeGreaterThan(3);
  });

  it('is darkened where something is near, by what a corner lets through, and only where the rig says so', async () => {
    const rig = rigWith({ ...AMBIENT, occlusion: NEAR });
    const view = { ...WHOLE_PICTURE, view: 'occlusion' } as const;
    const open = await pictureOf(standing(), rig, { inspection: view });
    const linear = (x: number, y: number): number => {
      const value = light(open, x, y);
      return value <= 0.0031308 ? value * 12.92 : 1.055 * value ** (1 / 2.4) - 0.055;
    };
    // At the foot of an endless wall half of the light from all around is left; the cube ends, so somewhat more.
    const row = Array.from({ length: 50 }, (_, index) => 64 + index);
    const foot = Math.min(...row.map((x) => linear(x, 66)));
    const darkest = row.find((x) => linear(x, 66) === foot) ?? 0;
    expect(foot).toBeGreaterThan(0.45);
    expect(foot).toBeLessThan(0.8);
    expect(linear(120, 66)).toBeGreaterThan(0.97);
    const [on, off] = [await pictureOf(standing(), rig), await pictureOf(standing(), rigWith(AMBIENT))];
    expect(light(on, darkest, 66)).toBeLessThan(light(off, darkest, 66) * 0.95);
    const unweighed = await pictureOf(standing(), rig, { inspection: { ...WHOLE_PICTURE, occlusion: 0 } });
    expect(light(unweighed, darkest, 66)).toBeCloseTo(light(off, darkest, 66), 2);
  });

  it('costs nothing while the rig does not occlude', async () => {
    const passes = async (rig: LightRig): Promise<number> => {
      const before = device.statistics.passes;
      await pictureOf(standing(), rig);
      return device.statistics.passes - before;
    };
    await passes(rigWith());
    const off = await passes(rigWith());
    // The distance of what is seen, what is found, and smoothing both ways; for the picture and for its trials.
    expect((await passes(rigWith({ occlusion: NEAR }))) - off).toBeGreaterThanOrEqual(4);
    expect(await passes(rigWith())).toBe(off);
  });

  it('leaves drawn looks alone unless they ask for it', async () => {
    const toon = (features: readonly string[]): Material => {
      const node = (kind: string, more: Partial<GraphNode> = {}): GraphNode => ({ kind, rev: 1, x: 0, y: 0, values: {}, ...more });
      const { surface } = newMaterial('m');
      return {
        ...newMaterial('m'),
        surface: { ...surface, nodes: { b: node('bands', { features }) }, ribbons: { 'dock.colour': { from: 'b', outlet: 'result' } } },
      };
    };
    const corner: StageSet = {
      ...newSet('s', 'cube', { size: 1 }),
      meshes: {
        a: newMesh('cube', { size: 1 }),
        b: newMesh('cube', { size: 1 }, { placing: { position: [1, 0.4, 0], turn: [0, 0, 0], scale: [1, 1, 1] } }),
      },
    };
    const seen = async (features: readonly string[], occlusion?: NearOcclusion): Promise<number> => {
      const pixels = await pictureOf(corner, rigWith({ ...AMBIENT, occlusion }), { material: toon(features) });
      return light(pixels, 66, 64);
    };
    const plain = await seen([]);
    expect(await seen([], NEAR)).toBeCloseTo(plain, 3);
    expect(await seen(['occluded'], NEAR)).toBeLessThan(plain * 0.97);
  });
});
