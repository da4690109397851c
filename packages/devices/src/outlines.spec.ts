import type { LightRig, Material, MeshShape, OrbitCamera, Outline, StageSet } from '@brelvin/contract';
import {
  compileFor,
  FIRST_OUTLINE,
  type FrameRenderer,
  newMaterial,
  newMesh,
  newRig,
  newSet,
  START_CAMERA,
  StageScene,
  WHOLE_PICTURE,
  type Inspection,
  type Device,
} from '@brelvin/core';
import { bring, withRenderer } from './testing/with-renderer';

const SIDE = 96;
const size = { width: SIDE, height: SIDE };
const front: OrbitCamera = { ...START_CAMERA, target: [0, 0, 0], azimuth: 0, elevation: 0, distance: 5 };
const rig: LightRig = { ...newRig('dark'), background: [0, 0, 0] };
const [SURFACE, LINE, GROUND] = ['surface', 'line', 'ground'];

/** Outlines on a real device: surfaces glow green, lines red, behind is black. */
describe('Outlines', () => {
  let device: Device;
  let renderer: FrameRenderer;

  withRenderer(SIDE, (open) => ({ device, renderer } = open));

  const glowing = (outline: Outline | undefined): Material => {
    const plain = newMaterial('glowing');
    const colour = (value: number[]): Material['surface']['nodes'][string] => ({ kind: 'colour', rev: 1, x: 0, y: 0, values: { value } });
    return {
      ...plain,
      outline,
      surface: {
        ...plain.surface,
        nodes: { green: colour([0, 1, 0]), red: colour([1, 0, 0]) },
        ribbons: { 'dock.colour': { from: 'green', outlet: 'result' }, 'dock.outline': { from: 'red', outlet: 'result' } },
      },
    };
  };

  async function standing(set: StageSet, outline: Outline | undefined): Promise<StageScene> {
    const scene = new StageScene(device, renderer);
    scene.setBench('lined');
    scene.show(set);
    for (const [id, material] of [['lined', glowing(outline)] as const, ['plain', glowing(undefined)] as const]) {
      const { compiled, problems } = compileFor(device.target, material, undefined, { variants: ['inspect'] });
      expect(problems).toEqual([]);
      const surface = await bring(device, compiled!);
      scene.assign(id, { material, surface });
    }
    return scene;
  }

  /** What each pixel shows. */
  async function seen(
    set: StageSet,
    outline: Outline | undefined,
    camera = front,
    inspection?: Inspection,
  ): Promise<(x: number, y: number) => string> {
    const scene = await standing(set, outline);
    const pixels = await renderer.measure({ items: scene.items(0), camera, rig, seconds: 0, inspection }, size);
    scene.destroy();
    return (x, y) => {
      const [red = 0, green = 0] = pixels.subarray((y * SIDE + x) * 4, (y * SIDE + x) * 4 + 2);
      return red > 0.5 ? LINE : green > 0.5 ? SURFACE : GROUND;
    };
  }

  const alone = (shape: MeshShape, turn: readonly number[] = [0, 0, 0]): StageSet => {
    const mesh = newMesh(shape);
    return { ...newSet(shape, shape), meshes: { mesh: { ...mesh, placing: { ...mesh.placing, turn } } } };
  };
  const along = (at: (x: number, y: number) => string, y = SIDE / 2): string[] => Array.from({ length: SIDE }, (_, x) => at(x, y));
  /** Lengths of the runs of what a row shows. */
  const runs = (row: readonly string[]): [string, number][] => {
    const found: [string, number][] = [];
    for (const each of row) {
      const last = found.at(-1);
      if (last?.[0] === each) last[1]++;
      else found.push([each, 1]);
    }
    return found;
  };
  /** Pixels of the surface that touch the ground with no line between. */
  const gaps = (at: (x: number, y: number) => string): number => {
    let count = 0;
    for (let y = 1; y < SIDE; y++)
      for (let x = 1; x < SIDE; x++)
        for (const other of [at(x - 1, y), at(x, y - 1)])
          if (new Set([at(x, y), other]).size === 2 && at(x, y) !== LINE && other !== LINE) count++;
    return count;
  };
  const perMetre = SIDE / (2 * front.distance * Math.tan(front.fieldOfView / 2));

  for (const method of ['hull', 'edges'] as const) {
    const outline: Outline = { ...FIRST_OUTLINE, method, width: 6 };

    it(`${method}: runs round a ball, as wide as is typed`, async () => {
      const row = runs(along(await seen(alone('sphere'), outline)));
      expect(row.map(([what]) => what)).toEqual([GROUND, LINE, SURFACE, LINE, GROUND]);
      for (const index of [1, 3])
        expect(Math.abs(row[index]![1] - 6))
          .withContext(JSON.stringify(row))
          .toBeLessThanOrEqual(2);
    });

    it(`${method}: leaves no gap at the corners of a turned cube`, async () => {
      expect(gaps(await seen(alone('cube', [0.5, 0.6, 0.2]), { ...outline, width: 4 }))).toBe(0);
    });

    it(`${method}: runs round an open sheet`, async () => {
      const at = await seen(alone('plane'), outline);
      expect(gaps(at)).toBe(0);
      expect(runs(along(at)).map(([what]) => what)).toEqual([GROUND, LINE, SURFACE, LINE, GROUND]);
    });

    it(`${method}: takes metres`, async () => {
      const row = runs(along(await seen(alone('sphere'), { ...outline, width: 0.2, unit: 'metres' })));
      expect(Math.abs(row[1]![1] - 0.2 * perMetre))
        .withContext(JSON.stringify(row))
        .toBeLessThanOrEqual(2);
    });

    it(`${method}: keeps its CSS width in a picture drawn small`, async () => {
      const scene = await standing(alone('sphere'), outline);
      const target = device.createTexture({ ...size, format: 'rgba8unorm', samples: 1 });
      const picture = { items: scene.items(0), camera: front, rig, seconds: 0 };
      renderer.draw(picture, { size: { width: SIDE / 2, height: SIDE / 2 }, samples: 1, target, targetSize: size, cssSize: size });
      const pixels = await device.readPixels(target);
      const red = Array.from({ length: SIDE / 2 }, (_, x) => pixels[((SIDE / 2) * SIDE + x) * 4] ?? 0).filter((each) => each > 127).length;
      // Lines that are found in the picture have whole pixels of it to either side.
      expect(Math.abs(red - 6)).toBeLessThanOrEqual(method === 'edges' ? 4 : 2);
      target.destroy();
      scene.destroy();
    });

    const behind = (hidden: boolean): Promise<(x: number, y: number) => string> => {
      const [ball, screen] = [newMesh('sphere'), newMesh('plane')];
      const set: StageSet = {
        ...newSet('behind', 'sphere'),
        meshes: { ball, screen: { ...screen, placing: { ...screen.placing, position: [1, 0, 1.5] } } },
        partRules: { plain: { pattern: '*', mesh: 'screen', order: 0, values: {}, material: 'plain' } },
      };
      return seen(set, { ...outline, width: 4, hidden });
    };

    it(`${method}: is hidden by what stands in front, unless it is wanted through it`, async () => {
      const [covered, through] = [await behind(false), await behind(true)];
      const inRightHalf = (at: (x: number, y: number) => string): number =>
        runs(along(at).slice(SIDE / 2 + 8)).filter(([what]) => what === LINE).length;
      expect(inRightHalf(covered)).toBe(0);
      expect(inRightHalf(through)).toBe(1);
      expect(runs(along(through))[1]?.[0]).toBe(LINE);
    });

    it(`${method}: is no part of a property’s picture, and counts as emission where terms are weighed`, async () => {
      const normals = await seen(alone('plane'), outline, front, { ...WHOLE_PICTURE, view: 'marks' });
      const bare = await seen(alone('plane'), undefined, front, { ...WHOLE_PICTURE, view: 'marks' });
      expect(along(normals)).toEqual(along(bare));
      const without = { ...WHOLE_PICTURE, weights: { ...WHOLE_PICTURE.weights, emission: 0 } };
      expect(along(await seen(alone('sphere'), outline, front, without)).includes(LINE)).toBeFalse();
    });
  }

  it('edges: find creases and parts, and leave flat and round surfaces alone', async () => {
    const outline: Outline = { ...FIRST_OUTLINE, method: 'edges', width: 2 };
    const cube = runs(along(await seen(alone('cube', [0, Math.PI / 4, 0]), outline)));
    expect(cube.map(([what]) => what)).toEqual([GROUND, LINE, SURFACE, LINE, SURFACE, LINE, GROUND]);
    const tilted = await seen(alone('plane', [1.2, 0, 0]), outline);
    expect(runs(Array.from({ length: SIDE }, (_, y) => tilted(SIDE / 2, y))).map(([what]) => what)).toEqual([
      GROUND,
      LINE,
      SURFACE,
      LINE,
      GROUND,
    ]);
    const flat = runs(along(await seen(alone('cube', [0, Math.PI / 4, 0]), outline, { ...front, orthographic: true })));
    expect(flat.map(([what]) => what)).toEqual([GROUND, LINE, SURFACE, LINE, SURFACE, LINE, GROUND]);
  });

  it('cost no pass where there are none', async () => {
    const scene = await standing(alone('sphere'), undefined);
    const before = device.statistics.passes;
    await renderer.measure({ items: scene.items(0), camera: front, rig, seconds: 0 }, size);
    expect(device.statistics.passes - before).toBe(1);
    scene.destroy();
  });

  it('are smooth in a picture at rest', async () => {
    for (const method of ['hull', 'edges'] as const) {
      const scene = await standing(alone('sphere'), { ...FIRST_OUTLINE, method, width: 3 });
      const target = device.createTexture({ ...size, format: 'rgba8unorm', samples: 1 });
      const picture = { items: scene.items(0), camera: front, rig, seconds: 0 };
      renderer.draw(picture, { size, samples: 4, target, targetSize: size, encoding: 'linear' });
      const red = (await device.readPixels(target)).filter((_, index) => index % 4 === 0);
      expect(red.filter((each) => each > 40 && each < 215).length)
        .withContext(method)
        .toBeGreaterThan(60);
      target.destroy();
      scene.destroy();
    }
  });
});
