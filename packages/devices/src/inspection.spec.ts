import { BACKGROUND_FITS, type BackgroundFit, type LightRig, type Material, type MaterialImage, type MeshShape } from '@brelvin/contract';
import {
  buildMesh,
  compileFor,
  DEMO_DOCUMENTS,
  demoLibrary,
  EACH_LIGHT_GROUP,
  type FrameRenderer,
  newLight,
  newMaterial,
  newRig,
  newSet,
  StageScene,
  START_CAMERA,
  TERMS,
  WHOLE_PICTURE,
  type DebugView,
  type FrameItem,
  type Inspection,
  type Term,
  type Device,
} from '@brelvin/core';
import { bring, withRenderer } from './testing/with-renderer';

const SIDE = 64;
const size = { width: SIDE, height: SIDE };
const front = { ...START_CAMERA, azimuth: 0, elevation: 0 };

/** Pictures taken apart on a real device. */
describe('Inspection', () => {
  let device: Device;
  let renderer: FrameRenderer;

  withRenderer(SIDE, (open) => ({ device, renderer } = open));

  const rig: LightRig = {
    ...newRig('test'),
    sun: newLight('sun', { direction: [0.3, 0.4, 0.87], intensity: 0.4 }),
    ambient: newLight('ambient', { intensity: 0.1 }),
    lights: { lamp: newLight('point', { position: [0, 0, 2], intensity: 0.3, weights: [0.1, 1, 1] }) },
    background: [0, 0, 0],
  };

  async function item(material: Material, shape: MeshShape): Promise<FrameItem> {
    const { compiled, problems } = compileFor(device.target, material, demoLibrary(), { variants: ['inspect', 'shadowed'] });
    expect(problems).toEqual([]);
    const mesh = renderer.uploadMesh(buildMesh({ shape, numbers: {}, smooth: true }));
    return { mesh, surface: await bring(device, compiled!), material };
  }

  /** Linear values of the red channel and its neighbours, 0…255, without the dither's half step. */
  async function linear(items: readonly FrameItem[], inspection: Inspection, scene = rig, encoding?: 'linear'): Promise<Uint8Array> {
    const target = device.createTexture({ ...size, format: 'rgba8unorm', samples: 1 });
    try {
      const picture = { items, camera: front, rig: scene, seconds: 0, inspection };
      renderer.draw(picture, { size, samples: 1, target, targetSize: size, encoding });
      return await device.readPixels(target);
    } finally {
      target.destroy();
    }
  }

  const only = (term: Term): Inspection => ({
    ...WHOLE_PICTURE,
    weights: Object.fromEntries(TERMS.map((each) => [each, each === term ? 1 : 0])) as Inspection['weights'],
  });

  for (const { id, document } of DEMO_DOCUMENTS) {
    if (document.format !== 'brelvin-material') continue;
    it(`takes ${id} apart into terms whose sum is the whole`, async () => {
      const picture = { items: [await item(document, 'sphere')], camera: front, rig, seconds: 0 };
      const whole = await renderer.measure(picture, size);
      const parts: Float32Array[] = [];
      for (const term of TERMS) parts.push(await renderer.measure({ ...picture, inspection: only(term) }, size));
      let [worst, lit] = [0, 0];
      for (let at = 0; at < whole.length; at++) {
        if (at % 4 === 3) continue;
        const sum = parts.reduce((each, part) => each + (part[at] ?? 0), 0);
        if (sum > 0) lit++;
        worst = Math.max(worst, Math.abs(sum - (whole[at] ?? 0)));
      }
      expect(lit).withContext('something is seen').toBeGreaterThan(1000);
      expect(worst).toBeLessThanOrEqual(1 / 255);
    });
  }

  it('leaves nothing behind where nothing is wanted: alpha in a still, squares on the Stage', async () => {
    const sphere = await item(newMaterial('plain'), 'sphere');
    const target = device.createTexture({ ...size, format: 'rgba8unorm', samples: 1 });
    const drawn = async (empty: 'alpha' | undefined, change: Partial<LightRig> = {}): Promise<(x: number, y: number) => number[]> => {
      const picture = { items: [sphere], camera: { ...front, distance: 6 }, rig: { ...rig, transparent: true, ...change }, seconds: 0 };
      renderer.draw(picture, { size, samples: 4, target, targetSize: size, empty });
      const pixels = await device.readPixels(target);
      return (x, y) => [...pixels.slice((y * SIDE + x) * 4, (y * SIDE + x) * 4 + 4)];
    };
    const still = await drawn('alpha');
    expect(still(2, 2)[3]).toBe(0);
    expect(still(SIDE / 2, SIDE / 2)[3]).toBe(255);
    const row = Array.from({ length: SIDE }, (_, x) => still(x, SIDE / 2));
    const edge = row.filter((each) => each[3]! > 20 && each[3]! < 235);
    expect(edge.length).toBeGreaterThan(0);
    // Not premultiplied: a half-covered pixel is as bright as the surface beside it.
    const inside = row.find((each) => each[3] === 255)!;
    for (const each of edge) expect(Math.abs(each[1]! - inside[1]!)).toBeLessThan(60);
    const stage = await drawn(undefined);
    expect(stage(2, 2)[3]).toBe(255);
    expect(Math.abs(stage(2, 2)[0]! - stage(14, 2)[0]!)).toBeGreaterThan(10);
    const glowing = await drawn('alpha', { bloom: { strength: 1, from: 0 }, exposure: 3 });
    expect(glowing(SIDE / 2, 6)[3]).toBeGreaterThan(5);
    target.destroy();
  });

  it('takes lighting that was built by hand apart: a sum over the lights is Lambert’s diffuse light', async () => {
    const surface = (nodes: Material['surface']['nodes'], from: string, outlet: string): Material['surface'] => ({
      ...newMaterial('').surface,
      nodes,
      ribbons: { 'dock.colour': { from, outlet } },
    });
    const node = { rev: 1, x: 0, y: 0, values: {} };
    const byHand: Material = {
      ...newMaterial('By hand'),
      surface: surface({ n: { ...node, kind: 'group', group: 'g' } }, 'n', 'light'),
      groups: { g: EACH_LIGHT_GROUP },
    };
    const builtIn: Material = { ...newMaterial('Built in'), surface: surface({ n: { ...node, kind: 'lambert' } }, 'n', 'result') };
    const pictures: Float32Array[] = [];
    for (const material of [byHand, builtIn]) {
      const picture = { items: [await item(material, 'sphere')], camera: front, rig, seconds: 0, inspection: only('diffuse') };
      pictures.push(await renderer.measure(picture, size));
    }
    const [own, known] = pictures;
    expect(Math.max(...(known ?? []))).toBeGreaterThan(0.2);
    known?.forEach((value, at) => Math.abs(value - (own?.[at] ?? NaN)) < 1e-3 || fail(`${at}: ${own?.[at]} instead of ${value}`));
  });

  it('weighs terms: one half makes half the picture', async () => {
    const items = [await item(newMaterial('plain'), 'sphere')];
    const half = { ...WHOLE_PICTURE, weights: { ...WHOLE_PICTURE.weights, ambient: 0.5, diffuse: 0.5 } };
    const [whole, halved] = [await linear(items, WHOLE_PICTURE, rig, 'linear'), await linear(items, half, rig, 'linear')];
    const middle = (SIDE / 2) * SIDE * 4 + (SIDE / 2) * 4;
    expect(Math.abs((halved[middle] ?? 0) * 2 - (whole[middle] ?? 0))).toBeLessThanOrEqual(2);
  });

  it('shows the colour without light, and light on white', async () => {
    const material = newMaterial('red');
    const red: Material = {
      ...material,
      surface: {
        ...material.surface,
        nodes: { ...material.surface.nodes, colour: { ...material.surface.nodes['colour']!, values: { value: [0.8, 0.1, 0] } } },
      },
    };
    const items = [await item(red, 'plane')];
    const at = (SIDE / 2) * SIDE * 4 + (SIDE / 2) * 4;
    const albedo = await linear(items, { ...WHOLE_PICTURE, surface: 'albedo' }, rig, 'linear');
    expect(Math.abs((albedo[at] ?? 0) - 0.8 * 255)).toBeLessThanOrEqual(1.5);
    expect(Math.abs((albedo[at + 1] ?? 0) - 0.1 * 255)).toBeLessThanOrEqual(1.5);
    const light = await linear(items, { ...WHOLE_PICTURE, surface: 'light' }, rig, 'linear');
    expect(Math.abs((light[at] ?? 0) - (light[at + 1] ?? 0))).toBeLessThanOrEqual(1);
    expect(light[at]).toBeGreaterThan(100);
  });

  const seen = async (
    view: DebugView,
    shape: MeshShape = 'sphere',
    more: Partial<Inspection> = {},
  ): Promise<(x: number, y: number) => number[]> => {
    const data = await linear([await item(newMaterial('plain'), shape)], { ...WHOLE_PICTURE, view, ...more });
    return (x, y) => [...data.slice((y * SIDE + x) * 4, (y * SIDE + x) * 4 + 3)];
  };

  it('shows normals as they are, whatever exposure and curve', async () => {
    const at = await seen('normals');
    const [red = 0, green = 0, blue = 0] = at(SIDE / 2, SIDE / 2);
    expect(Math.abs(red - 128)).toBeLessThan(8);
    expect(Math.abs(green - 128)).toBeLessThan(8);
    expect(blue).toBeGreaterThan(248);
    expect(at(SIDE / 2, 12)[1])
      .withContext('up is green')
      .toBeGreaterThan(200);
    expect(at(SIDE - 12, SIDE / 2)[0])
      .withContext('right is red')
      .toBeGreaterThan(200);
  });

  it('shows depth from white to black', async () => {
    const at = await seen('depth', 'sphere', { nearest: 4, farthest: 5 });
    expect(at(SIDE / 2, SIDE / 2)[0]).toBeGreaterThan(240);
    expect(at(SIDE / 2, 10)[0]).toBeLessThan(at(SIDE / 2, SIDE / 2)[0] ?? 0);
  });

  it('draws rings round a light that has a place, and none round a sun', async () => {
    const shades = (at: (x: number, y: number) => number[]): number =>
      new Set(Array.from({ length: 40 }, (_, step) => Math.round((at(12 + step, SIDE / 2)[0] ?? 0) / 8))).size;
    expect(shades(await seen('rings', 'plane', { light: 1 }))).toBeGreaterThan(4);
    expect(shades(await seen('rings', 'plane', { light: 0 }))).toBe(1);
  });

  it('marks what is below 0, above 1, or no number', async () => {
    const graph = (values: number[]): Material => {
      const plain = newMaterial('odd');
      return {
        ...plain,
        surface: {
          ...plain.surface,
          nodes: { c: { kind: 'colour', rev: 1, x: 0, y: 0, values: { value: values } } },
          ribbons: { 'dock.colour': { from: 'c', outlet: 'result' } },
        },
      };
    };
    const marked = async (values: number[]): Promise<number[]> => {
      const data = await linear([await item(graph(values), 'plane')], { ...WHOLE_PICTURE, view: 'marks' });
      return [...data.slice(((SIDE / 2) * SIDE + SIDE / 2) * 4, ((SIDE / 2) * SIDE + SIDE / 2) * 4 + 3)];
    };
    const [below, above, fine] = [await marked([-0.5, 0.2, 0.2]), await marked([0.2, 3, 0.2]), await marked([0.2, 0.2, 0.2])];
    expect(below[2]).toBeGreaterThan(200);
    expect(above[0]).toBeGreaterThan(200);
    expect(new Set(fine.map((each) => Math.round(each / 4))).size).toBe(1);
  });

  it('draws edges instead of the surface, and over it', async () => {
    const bright = async (view: DebugView): Promise<number> => {
      const at = await seen(view, 'cube');
      let count = 0;
      for (let y = 0; y < SIDE; y++) for (let x = 0; x < SIDE; x++) if ((at(x, y)[0] ?? 0) > 250) count++;
      return count;
    };
    const [wires, over, plain] = [await bright('wires'), await bright('wiresOver'), await bright('none')];
    expect(plain).toBe(0);
    expect(wires).toBeGreaterThan(20);
    expect(over).toBeGreaterThan(10);
  });

  it('draws wires also over a part that counts as nearer than it is', async () => {
    const plain = newMaterial('plain');
    const { compiled } = compileFor(device.target, plain);
    const lines = async (depthOffset: number): Promise<number> => {
      const scene = new StageScene(device, renderer);
      scene.setBench('m');
      scene.show({ ...newSet('s', 'sphere'), partRules: { near: { pattern: '*', order: 0, values: {}, depthOffset } } });
      scene.assign('m', {
        material: plain,
        surface: await bring(device, compiled!),
      });
      const pixels = await linear(
        scene.items(0),
        { ...WHOLE_PICTURE, view: 'wiresOver' },
        { ...rig, sun: newLight('sun', { on: false }), lights: {} },
      );
      scene.destroy();
      return pixels.filter((each, index) => index % 4 === 0 && each > 200).length;
    };
    const there = await lines(0);
    expect(there).toBeGreaterThan(100);
    expect(await lines(0.3)).toBeGreaterThan(there * 0.9);
  });

  it('sees every other property without a fault', async () => {
    for (const view of ['tangents', 'uv', 'secondUv', 'position', 'facing'] as const) {
      const at = await seen(view);
      const shades = new Set(Array.from({ length: 30 }, (_, step) => at(17 + step, SIDE / 2).join()));
      expect(shades.size).withContext(view).toBeGreaterThan(3);
    }
  });
});

describe('The view transform', () => {
  let device: Device;
  let renderer: FrameRenderer;

  withRenderer(SIDE, (open) => ({ device, renderer } = open));

  async function behind(change: Partial<LightRig>): Promise<Uint8Array> {
    const target = device.createTexture({ ...size, format: 'rgba8unorm', samples: 1 });
    renderer.draw(
      { items: [], camera: front, rig: { ...newRig('r'), ...change }, seconds: 0 },
      { size, samples: 1, target, targetSize: size, encoding: 'linear' },
    );
    const pixels = await device.readPixels(target);
    target.destroy();
    return pixels;
  }

  it('bends by the curve of the rig', async () => {
    const at = async (curve: LightRig['curve'], value: number): Promise<number> =>
      ((await behind({ curve, background: [value, value, value] }))[0] ?? 0) / 255;
    expect(await at('none', 0.5)).toBeCloseTo(0.5, 2);
    expect(await at('reinhard', 1)).toBeCloseTo(0.5, 2);
    expect(await at('aces', 1)).toBeCloseTo(0.804, 2);
    expect(await at('neutral', 0.5)).toBeCloseTo(0.46, 2);
    expect(await at('neutral', 100)).toBeGreaterThan(0.98);
  });

  it('draws a gradient behind, its upper end above', async () => {
    const pixels = await behind({ background: [0, 0, 0], backgroundTop: [1, 1, 1] });
    const row = (y: number): number => pixels[y * SIDE * 4] ?? 0;
    expect(row(0)).toBeGreaterThan(240);
    expect(row(SIDE - 1)).toBeLessThan(15);
    expect(Math.abs(row(SIDE / 2) - 127)).toBeLessThan(6);
  });

  it('lays a flat image behind, the colour beside it', async () => {
    const image: MaterialImage = {
      ...{ name: 'plate', asset: 'plate', width: 2, height: 1, role: 'colour', wrapX: 'clamp', wrapY: 'clamp' },
      ...{ filter: 'sharp', uvSet: 0 },
    };
    const pixels = new Uint8Array([255, 0, 0, 255, 0, 0, 255, 255]);
    await renderer.images.bring([image], async () => ({ width: 2, height: 1, levels: [pixels, pixels.slice(0, 4)] }));
    const at = async (fit: BackgroundFit, x: number, y: number): Promise<number[]> => {
      const seen = await behind({ background: [0, 1, 0], backgroundImage: { image, fit } });
      return [...seen.slice((y * SIDE + x) * 4, (y * SIDE + x) * 4 + 3)].map((each) => Math.round(each / 255));
    };
    const [left, right, green] = [
      [1, 0, 0],
      [0, 0, 1],
      [0, 1, 0],
    ];
    for (const fit of BACKGROUND_FITS) {
      expect(await at(fit, 4, SIDE / 2)).toEqual(left);
      expect(await at(fit, SIDE - 4, SIDE / 2)).toEqual(right);
    }
    expect(await at('contain', 4, 4)).toEqual(green);
    expect(await at('cover', 4, 4)).toEqual(left);
    expect(await at('stretch', SIDE - 4, 4)).toEqual(right);
  });

  it('spreads what is bright, and nothing else', async () => {
    const glow = async (strength: number): Promise<Uint8Array> => {
      const plain = newMaterial('lamp');
      const lamp: Material = {
        ...plain,
        surface: {
          ...plain.surface,
          nodes: { c: { kind: 'colour', rev: 1, x: 0, y: 0, values: { value: [6, 6, 6] } } },
          ribbons: { 'dock.colour': { from: 'c', outlet: 'result' } },
        },
      };
      const rig = { ...newRig('r'), background: [0, 0, 0], bloom: { strength, from: 1 } };
      const { compiled } = compileFor(device.target, lamp);
      const mesh = renderer.uploadMesh(buildMesh({ shape: 'sphere', numbers: { radius: 0.3 }, smooth: true }));
      const surface = await bring(device, compiled!);
      const target = device.createTexture({ ...size, format: 'rgba8unorm', samples: 1 });
      renderer.draw(
        { items: [{ mesh, surface, material: lamp }], camera: front, rig, seconds: 0 },
        { size, samples: 1, target, targetSize: size },
      );
      const pixels = await device.readPixels(target);
      target.destroy();
      return pixels;
    };
    const near = ((SIDE / 2) * SIDE + SIDE / 2 + 14) * 4;
    const [without, spread] = [await glow(0), await glow(0.5)];
    expect(without[near]).toBeLessThan(2);
    expect(spread[near]).toBeGreaterThan(10);
    expect(spread[0]).toBeLessThan(spread[near] ?? 0);
  });

  it('fades into fog with distance, and not without', async () => {
    const far = async (density: number): Promise<number> => {
      const rig = { ...newRig('r'), background: [0, 0, 0], fog: { density, colour: [0, 1, 0] } };
      const material = newMaterial('m');
      const { compiled } = compileFor(device.target, material);
      const mesh = renderer.uploadMesh(buildMesh({ shape: 'plane', numbers: {}, smooth: true }));
      const surface = await bring(device, compiled!);
      const target = device.createTexture({ ...size, format: 'rgba8unorm', samples: 1 });
      renderer.draw(
        { items: [{ mesh, surface, material }], camera: front, rig, seconds: 0 },
        { size, samples: 1, target, targetSize: size, encoding: 'linear' },
      );
      const pixels = await device.readPixels(target);
      target.destroy();
      const at = ((SIDE / 2) * SIDE + SIDE / 2) * 4;
      return ((pixels[at + 1] ?? 0) - (pixels[at] ?? 0)) / 255;
    };
    expect(await far(0)).toBeCloseTo(0, 2);
    // Beer-Lambert over five metres.
    expect(await far(0.2)).toBeCloseTo(1 - Math.exp(-0.2 * 5), 1);
    expect(await far(5)).toBeGreaterThan(0.98);
  });
});
