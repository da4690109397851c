import type { LightRig, Material, MeshShape } from '@brelvin/contract';
import {
  buildMesh,
  compileFor,
  DEMO_DOCUMENTS,
  DEMO_IMAGES,
  mipChain,
  demoLibrary,
  drawnPixels,
  THUMBNAIL,
  type FrameRenderer,
  newMaterial,
  newLight,
  newRig,
  START_CAMERA,
  THUMBNAIL_SIZE,
  type FrameItem,
  type Picture,
  type Device,
} from '@brelvin/core';
import { withRenderer } from './testing/with-renderer';

const SIDE = THUMBNAIL_SIZE;
const front = { ...START_CAMERA, azimuth: 0, elevation: 0 };

/** The frame renderer on a real device: pixels against closed forms. */
describe('FrameRenderer', () => {
  let device: Device;
  let renderer: FrameRenderer;

  withRenderer(SIDE, (open) => ({ device, renderer } = open));

  async function item(material: Material, shape: MeshShape, rig: LightRig): Promise<FrameItem> {
    const { compiled, problems } = compileFor(device.target, material, demoLibrary());
    expect(problems).toEqual([]);
    const mesh = renderer.uploadMesh(buildMesh({ shape, numbers: {}, smooth: shape !== 'cube' }));
    return { mesh, surface: await renderer.prepare(compiled!, { camera: front, rig, seconds: 0 }, mesh, material), material };
  }

  async function pixels(picture: Picture): Promise<(x: number, y: number) => number[]> {
    const data = await drawnPixels(device, renderer, picture, THUMBNAIL);
    return (x, y) => [...data.slice((y * SIDE + x) * 4, (y * SIDE + x) * 4 + 3)];
  }

  const encode = (linear: number): number => 255 * (linear <= 0.0031308 ? linear * 12.92 : 1.055 * linear ** (1 / 2.4) - 0.055);
  const white = (): Material => {
    const material = newMaterial('White');
    return {
      ...material,
      surface: {
        ...material.surface,
        nodes: { ...material.surface.nodes, colour: { ...material.surface.nodes['colour']!, values: { value: [1, 1, 1] } } },
      },
    };
  };
  const sunFrom = (direction: number[], intensity = 1): LightRig => ({
    ...newRig('test'),
    sun: newLight('sun', { direction, colour: [1, 1, 1], intensity }),
    ambient: newLight('ambient', { colour: [1, 1, 1], intensity: 0 }),
    background: [0.25, 0.25, 0.25],
  });

  it('reads 1 for white that faces a sun of 1, and the background elsewhere', async () => {
    const rig = sunFrom([0, 0, 1]);
    const at = await pixels({ items: [await item(white(), 'plane', rig)], camera: front, rig, seconds: 0 });
    expect(at(SIDE / 2, SIDE / 2)).toEqual([255, 255, 255]);
    at(3, 3).forEach((each) => expect(Math.abs(each - encode(0.25))).toBeLessThanOrEqual(1));
  });

  it('falls with the cosine, and encodes as sRGB', async () => {
    for (const degrees of [30, 60, 80]) {
      const angle = (degrees * Math.PI) / 180;
      const rig = sunFrom([Math.sin(angle), 0, Math.cos(angle)]);
      const at = await pixels({ items: [await item(white(), 'plane', rig)], camera: front, rig, seconds: 0 });
      expect(Math.abs((at(SIDE / 2, SIDE / 2)[0] ?? 0) - encode(Math.cos(angle)))).toBeLessThanOrEqual(1);
    }
  });

  it('exposes in stops', async () => {
    const rig = { ...sunFrom([0, 0, 1], 0.25), exposure: 1 };
    const at = await pixels({ items: [await item(white(), 'plane', rig)], camera: front, rig, seconds: 0 });
    expect(Math.abs((at(SIDE / 2, SIDE / 2)[1] ?? 0) - encode(0.5))).toBeLessThanOrEqual(1);
  });

  it('has up above and right at the right: a sphere under a high sun, then one from the right', async () => {
    for (const [direction, bright, dark] of [
      [
        [0, 1, 0],
        [128, 70],
        [128, 190],
      ],
      [
        [1, 0, 0],
        [190, 128],
        [66, 128],
      ],
    ] as const) {
      const rig = sunFrom([...direction]);
      const at = await pixels({ items: [await item(white(), 'sphere', rig)], camera: front, rig, seconds: 0 });
      expect(at(bright[0], bright[1])[0]).toBeGreaterThan((at(dark[0], dark[1])[0] ?? 255) + 60);
    }
  });

  it('hides what lies behind: the near side of a cube', async () => {
    const rig = sunFrom([0, 0, 1]);
    const at = await pixels({ items: [await item(white(), 'cube', rig)], camera: front, rig, seconds: 0 });
    expect(at(SIDE / 2, SIDE / 2)).toEqual([255, 255, 255]);
  });

  it('draws the same picture twice, to the bit', async () => {
    const rig = sunFrom([-0.4, 0.5, 0.7]);
    const items = [await item(white(), 'torusKnot', rig)];
    const [one, two] = [
      await drawnPixels(device, renderer, { items, camera: START_CAMERA, rig, seconds: 1 }, THUMBNAIL),
      await drawnPixels(device, renderer, { items, camera: START_CAMERA, rig, seconds: 1 }, THUMBNAIL),
    ];
    expect(one).toEqual(two);
  });

  it('hatches what never had a program', async () => {
    const rig = sunFrom([0, 0, 1]);
    const mesh = renderer.uploadMesh(buildMesh({ shape: 'plane', numbers: {}, smooth: true }));
    const at = await pixels({ items: [{ mesh }], camera: front, rig, seconds: 0 });
    const shades = new Set(Array.from({ length: 24 }, (_, step) => at(110 + step, 128).join()));
    expect(shades.size).toBeGreaterThan(2);
    for (const shade of shades) expect(new Set(shade.split(',').map((each) => Math.round(Number(each) / 3))).size).toBeLessThanOrEqual(2);
  });

  it('needs no new program for other numbers', async () => {
    const rig = sunFrom([0, 0, 1]);
    const material = white();
    const prepared = await item(material, 'plane', rig);
    const before = device.statistics.compiledPrograms;
    const dim: Material = {
      ...material,
      surface: {
        ...material.surface,
        nodes: { ...material.surface.nodes, colour: { ...material.surface.nodes['colour']!, values: { value: [0.5, 0.5, 0.5] } } },
      },
    };
    const at = await pixels({ items: [{ ...prepared, material: dim }], camera: front, rig, seconds: 0 });
    expect(Math.abs((at(SIDE / 2, SIDE / 2)[0] ?? 0) - encode(0.5))).toBeLessThanOrEqual(1);
    expect(device.statistics.compiledPrograms).toBe(before);
  });

  for (const { id, document } of DEMO_DOCUMENTS) {
    if (document.format !== 'brelvin-material') continue;
    it(`shows ${id}: the driver takes it, and it is no flat grey`, async () => {
      const rig = sunFrom([-0.5, 0.6, 0.6]);
      await renderer.images.bring(Object.values(document.images), async ({ asset, role }) => {
        const image = DEMO_IMAGES.find((each) => each.asset === asset);
        return image && mipChain(image.pixels(), role);
      });
      const at = await pixels({ items: [await item(document, 'sphere', rig)], camera: front, rig, seconds: 0 });
      const seen = new Set(Array.from({ length: 60 }, (_, step) => at(60 + step * 2, 128).join()));
      expect(seen.size).toBeGreaterThan(3);
    });
  }
});
