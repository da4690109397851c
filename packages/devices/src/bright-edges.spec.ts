import type { LightRig, Material } from '@brelvin/contract';
import {
  buildMesh,
  compileFor,
  demoLibrary,
  drawnPixels,
  THUMBNAIL,
  newMaterial,
  newRig,
  START_CAMERA,
  THUMBNAIL_SIZE,
  type FrameRenderer,
  type Device,
} from '@brelvin/core';
import { bring, withRenderer } from './testing/with-renderer';

const SIDE = THUMBNAIL_SIZE;
const camera = { ...START_CAMERA, azimuth: 0, elevation: 0 };

/** Edges of what is brighter than white: a sphere that gives light of its own, before black. */
describe('Bright edges', () => {
  let device: Device;
  let renderer: FrameRenderer;

  withRenderer(SIDE, (open) => ({ device, renderer } = open));

  /** Alone in the dark, in one colour that is so many times white. */
  function shining(brightness: number): Material {
    const material = newMaterial('Shining');
    const { colour } = material.surface.nodes;
    return {
      ...material,
      surface: {
        ...material.surface,
        nodes: { colour: { ...colour!, values: { value: [brightness, brightness, brightness] } } },
        ribbons: { 'dock.colour': { from: 'colour', outlet: 'result' } },
      },
    };
  }

  const dark = (change: Partial<LightRig> = {}): LightRig => ({ ...newRig('dark'), background: [0, 0, 0], ...change });

  async function rows(brightness: number, rig = dark()): Promise<number[][]> {
    const material = shining(brightness);
    const { compiled, problems } = compileFor(device.target, material, demoLibrary());
    expect(problems).toEqual([]);
    const mesh = renderer.uploadMesh(buildMesh({ shape: 'sphere', numbers: {}, smooth: true }));
    const surface = await bring(device, compiled!);
    const data = await drawnPixels(device, renderer, { items: [{ mesh, surface, material }], camera, rig, seconds: 0 }, THUMBNAIL);
    return Array.from({ length: SIDE }, (_, y) => Array.from({ length: SIDE }, (_each, x) => data[(y * SIDE + x) * 4] ?? 0));
  }

  /** Of the rows that the sphere crosses, the part in which its edge has a pixel between black and white. */
  function softRows(picture: readonly number[][]): number {
    const crossed = picture.filter((row) => row.some((value) => value > 250));
    const soft = crossed.filter((row) => row.some((value) => value > 12 && value < 243));
    return soft.length / crossed.length;
  }

  it('are no stairs, however bright', async () => {
    expect(softRows(await rows(1)))
      .withContext('white, by its four samples')
      .toBeGreaterThan(0.7);
    for (const curve of ['none', 'aces'] as const)
      expect(softRows(await rows(60, dark({ curve }))))
        .withContext(`60 times white, curve ${curve}`)
        .toBeGreaterThan(0.7);
  });

  it('change nothing away from the edge, and nothing that is not brighter than white', async () => {
    const bright = await rows(60);
    expect(bright[SIDE / 2]?.[SIDE / 2]).toBe(255);
    expect(bright[2]?.[2]).toBe(0);
    const half = await rows(0.5);
    // What four samples give of a half, as sRGB, and its dither: nothing was smoothed.
    const shares = [0, 0.125, 0.25, 0.375, 0.5].map((light) => (light === 0 ? 0 : 255 * (1.055 * light ** (1 / 2.4) - 0.055)));
    expect(half.flat().filter((value) => shares.every((share) => Math.abs(value - share) > 1.6))).toEqual([]);
  });
});
