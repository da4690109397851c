import type { GraphNode, InletValue, LightRig, Material, SetMesh, StageSet } from '@brelvin/contract';
import {
  compileFor,
  newLight,
  newMaterial,
  newRig,
  newSet,
  StageScene,
  START_CAMERA,
  type FrameRenderer,
  type Device,
} from '@brelvin/core';
import { bring, withRenderer } from './testing/with-renderer';

const SIDE = 96;
const size = { width: SIDE, height: SIDE };
const camera = { ...START_CAMERA, azimuth: 0, elevation: 0, distance: 6 };
/** No light but what things give off themselves. */
const dark: LightRig = {
  ...newRig('dark'),
  sun: newLight('sun', { on: false }),
  ambient: newLight('ambient', { on: false }),
  background: [0, 0, 0],
};

/** Glass on a real device: a checker behind it, and glass behind glass. */
describe('Glass', () => {
  let device: Device;
  let renderer: FrameRenderer;

  withRenderer(SIDE, (open) => ({ device, renderer } = open));

  const node = (kind: string, values: GraphNode['values'] = {}, features?: readonly string[]): GraphNode => ({
    kind,
    rev: 1,
    x: 0,
    y: 0,
    values,
    ...(features ? { features } : {}),
  });
  const glass = (values: Readonly<Record<string, InletValue>>, features: readonly string[] = ['hasTransmission']): Material => ({
    ...newMaterial('glass'),
    surface: {
      ...newMaterial('glass').surface,
      nodes: { g: node('physicalSurface', { baseColour: [1, 1, 1], roughness: 0, ...values }, features) },
      ribbons: { 'dock.colour': { from: 'g', outlet: 'result' } },
    },
  });
  /** Glows in squares, half of them green. */
  const checker: Material = {
    ...newMaterial('checker'),
    surface: {
      ...newMaterial('checker').surface,
      nodes: { u: node('uv'), c: node('checker', { count: 8 }), m: node('mix', { b: [0, 1, 0] }), a: node('colour', { value: [0, 0, 0] }) },
      ribbons: {
        'c.uv': { from: 'u', outlet: 'result' },
        'm.a': { from: 'a', outlet: 'result' },
        'm.amount': { from: 'c', outlet: 'result' },
        'dock.emission': { from: 'm', outlet: 'result' },
        'dock.colour': { from: 'a', outlet: 'result' },
      },
    },
  };

  const plane = (z: number, side: number): SetMesh => ({
    ...newSet('s', 'plane', { width: side, height: side }).meshes['mesh']!,
    placing: { position: [0, 0, z], turn: [0, 0, 0], scale: [1, 1, 1] },
  });
  const ball = (z: number, radius: number): SetMesh => ({
    ...newSet('s', 'sphere', { radius }).meshes['mesh']!,
    placing: { position: [0, 0, z], turn: [0, 0, 0], scale: [1, 1, 1] },
  });

  async function pictureOf(
    things: Record<string, { mesh: SetMesh; material: Material }>,
    rig = dark,
    seen = camera,
  ): Promise<Float32Array> {
    const stage = new StageScene(device, renderer);
    const set: StageSet = {
      ...newSet('s'),
      meshes: Object.fromEntries(Object.entries(things).map(([id, { mesh }]) => [id, mesh])),
      partRules: Object.fromEntries(
        Object.keys(things).map((id, order) => [id, { order, mesh: id, pattern: '*', material: id, values: {}, faces: 'auto' as const }]),
      ),
    };
    stage.show(set);
    for (const [id, { material }] of Object.entries(things)) {
      const { compiled, problems } = compileFor(device.target, material);
      expect(problems).toEqual([]);
      stage.assign(id, { material, surface: await bring(device, compiled!) });
    }
    const pixels = await renderer.measure({ items: stage.items(0), camera: seen, rig, seconds: 0 }, size);
    stage.destroy();
    return pixels;
  }

  const green = (pixels: Float32Array, x: number, y = SIDE / 2): number => pixels[(y * SIDE + x) * 4 + 1] ?? NaN;
  const row = (pixels: Float32Array): number[] => Array.from({ length: 40 }, (_, index) => green(pixels, 28 + index, 40));
  const contrast = (pixels: Float32Array): number => {
    const values = row(pixels);
    return Math.max(...values) - Math.min(...values);
  };
  const wall = { mesh: plane(-1, 6), material: checker };

  it('lets all through but what it mirrors, a thin pane without bending it', async () => {
    const bare = await pictureOf({ wall });
    const through = await pictureOf({ wall, pane: { mesh: plane(1, 3), material: glass({}) } });
    // 4 % head on, on the one side that is drawn.
    row(bare).forEach((value, index) => expect(row(through)[index]).toBeCloseTo(value * 0.96, 1.6));
  });

  for (const roughness of [0.15, 0.3, 0.5, 0.8])
    it(`blurs without edges where what is behind it lies at several depths: roughness ${roughness}`, async () => {
      const glow = (colour: readonly number[]): Material => ({
        ...newMaterial('glow'),
        surface: {
          ...newMaterial('glow').surface,
          nodes: { c: node('colour', { value: colour }) },
          ribbons: { 'dock.colour': { from: 'c', outlet: 'result' } },
        },
      });
      const pixels = await pictureOf({
        wall: { mesh: plane(-6, 30), material: glow([0, 0.1, 0]) },
        near: { mesh: ball(0.2, 0.45), material: glow([0, 1, 0]) },
        // A thin thing, far nearer than the wall.
        post: {
          mesh: { ...plane(0.4, 1), placing: { position: [1, 0, 0.4], turn: [0, 0, 0], scale: [0.06, 3, 1] } },
          material: glow([0, 0.8, 0]),
        },
        pane: { mesh: plane(1, 6), material: glass({ roughness }) },
      });
      // From pixel to pixel light changes little by little; an edge would be a step of much of what there is.
      const lines = [30, 40, 48, 56];
      const steps = lines.flatMap((y) =>
        Array.from({ length: 70 }, (_, x) => Math.abs(green(pixels, x + 14, y) - green(pixels, x + 13, y))),
      );
      const bends = lines.flatMap((y) =>
        Array.from({ length: 70 }, (_, x) => Math.abs(green(pixels, x + 14, y) - 2 * green(pixels, x + 13, y) + green(pixels, x + 12, y))),
      );
      expect(Math.max(...steps)).toBeLessThan(0.5 / (1 + 40 * roughness * roughness));
      expect(Math.max(...bends)).toBeLessThan(0.4 / (1 + 60 * roughness * roughness));
    });

  it('colours what is behind it, and loses in a body what it absorbs', async () => {
    const tinted = await pictureOf({ wall, pane: { mesh: plane(1, 3), material: glass({ baseColour: [1, 0.5, 1] }) } });
    const deep = await pictureOf({
      wall,
      pane: {
        mesh: plane(1, 3),
        material: glass({ thickness: 0.2, absorbed: [1, 0.5, 1], absorbedAt: 0.1 }, ['hasTransmission', 'hasVolume']),
      },
    });
    const most = Math.max(...row(await pictureOf({ wall })));
    expect(Math.max(...row(tinted)) / most).toBeCloseTo(0.48, 1.5);
    expect(Math.max(...row(deep)) / most).toBeCloseTo(0.24, 1.5);
  });

  it('blurs what is far behind it the more the rougher it is, and what is near less', async () => {
    const pane = (roughness: number, z: number) => pictureOf({ wall, pane: { mesh: plane(z, 5), material: glass({ roughness }) } });
    const [clear, frosted, rough] = [await pane(0, 1), await pane(0.25, 1), await pane(0.6, 1)];
    expect(contrast(frosted)).toBeLessThan(contrast(clear) * 0.8);
    expect(contrast(rough)).toBeLessThan(contrast(frosted));
    const near = await pane(0.6, -0.95);
    expect(contrast(near)).toBeGreaterThan(contrast(rough) * 1.5);
  });

  it('bends light in a body: a ball of it turns the picture behind it round', async () => {
    const half: Material = {
      ...checker,
      surface: {
        ...checker.surface,
        nodes: { ...checker.surface.nodes, c: node('place'), step: node('smoothstep', { low: 0.49, high: 0.51 }) },
        ribbons: {
          'step.value': { from: 'c', outlet: 'x' },
          'm.a': { from: 'a', outlet: 'result' },
          'm.amount': { from: 'step', outlet: 'result' },
          'dock.emission': { from: 'm', outlet: 'result' },
          'dock.colour': { from: 'a', outlet: 'result' },
        },
      },
    };
    const body = glass({ ior: 2.3, thickness: 4 }, ['hasTransmission', 'hasVolume']);
    const pixels = await pictureOf({ wall: { mesh: plane(-1.5, 6), material: half }, body: { mesh: ball(0, 1.2), material: body } });
    const bare = await pictureOf({ wall: { mesh: plane(-1.5, 6), material: half } });
    expect(green(bare, 60)).toBeGreaterThan(green(bare, 36));
    expect(green(pixels, 60)).toBeLessThan(green(pixels, 36));
  });

  it('does not vanish behind glass: both panes take their part, from before and from behind', async () => {
    const pane = glass({ baseColour: [1, 0.5, 1] });
    const most = Math.max(...row(await pictureOf({ wall })));
    const two = { wall, far: { mesh: plane(0.5, 3), material: pane }, near: { mesh: plane(1.5, 2.5), material: pane } };
    expect(Math.max(...row(await pictureOf(two))) / most).toBeCloseTo(0.48 ** 2, 1.5);
    const round = { ...camera, azimuth: Math.PI };
    const back = { mesh: plane(3, 8), material: checker };
    const others = { back, far: { mesh: plane(-1.5, 2.5), material: pane }, near: { mesh: plane(0.5, 3), material: pane } };
    const bare = Math.max(...row(await pictureOf({ back }, dark, round)));
    expect(Math.max(...row(await pictureOf(others, dark, round))) / bare).toBeCloseTo(0.48 ** 2, 1.5);
  });

  it('splits colours in a prism', async () => {
    const features = ['hasTransmission', 'hasVolume', 'hasDispersion'];
    const white: Material = {
      ...checker,
      surface: { ...checker.surface, nodes: { ...checker.surface.nodes, m: node('mix', { b: [1, 1, 1] }) } },
    };
    const body = (dispersion: number) => ({ mesh: ball(0, 1.4), material: glass({ ior: 2.2, thickness: 3, dispersion }, features) });
    const spread = (pixels: Float32Array): number => {
      let most = 0;
      for (let at = 0; at < pixels.length; at += 4) most = Math.max(most, Math.abs((pixels[at] ?? 0) - (pixels[at + 2] ?? 0)));
      return most;
    };
    const behind = { mesh: plane(-2, 8), material: white };
    expect(spread(await pictureOf({ behind, body: body(0) }))).toBeLessThan(0.01);
    expect(spread(await pictureOf({ behind, body: body(4) }))).toBeGreaterThan(0.2);
  });

  it('disappears in a white room, clear or frosted', async () => {
    const room: LightRig = { ...dark, ambient: newLight('ambient', { intensity: 1 }), background: [1, 1, 1] };
    for (const roughness of [0, 0.4, 0.9])
      for (const features of [['hasTransmission'], ['hasTransmission', 'hasVolume', 'hasCoat']]) {
        const pixels = await pictureOf({ body: { mesh: ball(0, 1.4), material: glass({ roughness }, features) } }, room);
        for (let at = 0; at < pixels.length; at++)
          if (at % 4 < 3 && Math.abs((pixels[at] ?? 0) - 1) > 0.008) fail(`${roughness} ${features.join()}: ${pixels[at]}`);
      }
    expect(true).toBeTrue();
  });

  it('disappears as metal, plastic and cloth too', async () => {
    const room: LightRig = { ...dark, ambient: newLight('ambient', { intensity: 1 }), background: [1, 1, 1] };
    let worst = 0;
    for (const metallic of [0, 1])
      for (const roughness of [0.03, 0.3, 0.7, 1])
        for (const features of [[], ['hasCoat'], ['hasSheen'], ['hasAnisotropy']]) {
          const pixels = await pictureOf({ body: { mesh: ball(0, 1.4), material: glass({ roughness, metallic }, features) } }, room);
          for (let at = 0; at < pixels.length; at++) if (at % 4 < 3) worst = Math.max(worst, Math.abs((pixels[at] ?? 0) - 1));
        }
    expect(worst).toBeLessThan(0.008);
  });
});
