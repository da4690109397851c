import type { LightRig, Material } from '@brelvin/contract';
import {
  compileFor,
  drawLargePicture,
  drawLayers,
  drawnPixels,
  FIRST_OUTLINE,
  newLight,
  newMaterial,
  newRig,
  newSet,
  START_CAMERA,
  StageScene,
  type FrameRenderer,
  type Picture,
  type Device,
} from '@brelvin/core';
import { bring, withRenderer } from './testing/with-renderer';

const size = { width: 300, height: 200 };
const cssSize = { width: 150, height: 100 };
/** Small ones, so that a small picture is of many tiles. */
const TILED = { size, cssSize, atOnce: 128, tile: 96 };

/** Pictures in tiles on a real device, beside the same drawn at once. */
describe('A large picture', () => {
  let device: Device;
  let renderer: FrameRenderer;

  withRenderer(32, (open) => ({ device, renderer } = open));

  async function pictureOf(material: Material, changes: Partial<LightRig> = {}, shape: 'sphere' | 'cube' = 'cube'): Promise<Picture> {
    const scene = new StageScene(device, renderer);
    scene.setBench('m');
    scene.show(newSet('s', shape));
    const { compiled, problems } = compileFor(device.target, material);
    expect(problems).toEqual([]);
    scene.assign('m', { material, surface: await bring(device, compiled!) });
    const camera = { ...START_CAMERA, target: [0, 0, 0], distance: 5 };
    const rig: LightRig = { ...newRig('r'), background: [0.02, 0.02, 0.1], backgroundTop: [0.6, 0.3, 0.1], ...changes };
    return { items: scene.items(0), camera, rig, seconds: 0 };
  }

  async function tiled(picture: Picture): Promise<{ pixels: Uint8Array; tiles: number }> {
    const pixels = new Uint8Array(size.width * size.height * 4);
    let tiles = 0;
    const whole = await drawLargePicture(device, renderer, picture, TILED, {
      put: ({ x, y, width, height, pixels: some }) => {
        tiles++;
        for (let row = 0; row < height; row++)
          pixels.set(some.subarray(row * width * 4, (row + 1) * width * 4), ((y + row) * size.width + x) * 4);
      },
      goesOn: () => true,
    });
    expect(whole).toBeTrue();
    return { pixels, tiles };
  }

  /** The share of bytes that differ by more than so many steps. */
  async function differing(picture: Picture, steps: number): Promise<number> {
    const once = await drawnPixels(device, renderer, picture, size, cssSize);
    const { pixels, tiles } = await tiled(picture);
    expect(tiles).toBe(12);
    // Something stands there.
    expect(new Set(once).size).toBeGreaterThan(40);
    return once.filter((each, index) => Math.abs(each - (pixels[index] ?? 0)) > steps).length / once.length;
  }

  /** How much more pixels differ across the borders of tiles than beside them. */
  function seam(pixels: Uint8Array): number {
    const step = (x: number): number => {
      let sum = 0;
      for (let y = 0; y < size.height; y++)
        for (let channel = 0; channel < 3; channel++) {
          const at = (y * size.width + x) * 4 + channel;
          sum += Math.abs((pixels[at] ?? 0) - (pixels[at - 4] ?? 0));
        }
      return sum;
    };
    const borders = [TILED.tile, 2 * TILED.tile, 3 * TILED.tile];
    const beside = borders.flatMap((x) => [step(x - 2), step(x - 1), step(x + 1), step(x + 2)]);
    return borders.reduce((sum, x) => sum + step(x), 0) / borders.length / (beside.reduce((sum, each) => sum + each, 0) / beside.length);
  }

  const lit = newMaterial('m');

  it('is in tiles what it is at once: surface, gradient behind it, antialiasing and dither', async () => {
    expect(await differing(await pictureOf(lit), 1)).toBeLessThan(0.0005);
  });

  for (const method of ['hull', 'edges'] as const)
    it(`has its ${method} lines as wide, and none at the borders of tiles`, async () => {
      const picture = await pictureOf({ ...lit, outline: { ...FIRST_OUTLINE, method, width: 5 } });
      expect(await differing(picture, 2)).toBeLessThan(0.001);
    });

  it('has light that spreads across tiles, and lamps with a body', async () => {
    const lamp = newLight('point', { position: [0, 0, 1.2], intensity: 6, body: 0.2 });
    const picture = await pictureOf(lit, { lights: { lamp }, bloom: { strength: 0.8, from: 0.5 } });
    const dark = await pictureOf(lit, { lights: { lamp } });
    const [spread, plain] = [await tiled(picture), await tiled(dark)];
    expect(seam(spread.pixels)).toBeLessThan(1.3);
    expect(spread.pixels.filter((each, index) => each > (plain.pixels[index] ?? 0) + 8).length).toBeGreaterThan(2000);
  });

  it('sees through glass across tiles', async () => {
    const glass: Material = {
      ...lit,
      surface: {
        ...lit.surface,
        nodes: {
          g: { kind: 'physicalSurface', rev: 1, x: 0, y: 0, values: { roughness: 0 }, features: ['hasTransmission'] },
        },
        ribbons: { 'dock.colour': { from: 'g', outlet: 'result' } },
      },
    };
    const picture = await pictureOf(glass, {}, 'sphere');
    // What is behind is as fine as a picture that is drawn at once: here of 128 pixels.
    expect(await differing(picture, 60)).toBeLessThan(0.01);
    expect(seam((await tiled(picture)).pixels)).toBeLessThan(1.3);
  });

  it('has in layers what it has at once: all of its light, one term of it, and what is recorded', async () => {
    const picture = await pictureOf(lit, { lights: { sun: newLight('sun', { direction: [0.3, -0.6, -0.7] }) } });
    const layers = ['whole', 'diffuse', 'normal', 'depth', 'part'] as const;
    const once = await drawLayers(renderer, picture, { ...TILED, atOnce: 2048 }, layers, () => true);
    const pieces = await drawLayers(renderer, picture, TILED, layers, () => true);
    for (const layer of layers) {
      const [whole, tiles] = [once!.get(layer)!, pieces!.get(layer)!];
      expect(tiles.length).withContext(layer).toBe(whole.length);
      // Something stands there, and something else around it.
      expect(new Set(whole).size).withContext(layer).toBeGreaterThan(1);
      const apart = tiles.filter((each, index) => each !== whole[index] && Math.abs(each - whole[index]!) > 0.004).length;
      expect(apart / whole.length)
        .withContext(layer)
        .toBeLessThan(0.002);
    }
  });

  it('in layers tells how far it is, and is given up where it is not wanted any more', async () => {
    const picture = await pictureOf(lit);
    const told: number[] = [];
    const goesOn = (done: number, of: number): boolean => (told.push(done / of), told.length < 20);
    expect(await drawLayers(renderer, picture, TILED, ['whole', 'diffuse', 'depth'], goesOn)).toBeUndefined();
    expect(told.length).toBe(20);
    expect(told).toEqual([...told].sort((a, b) => a - b));
    // One of three layers is done, and a part of the second.
    expect(told.at(-1)!).toBeGreaterThan(1 / 3);
    expect(told.at(-1)!).toBeLessThan(2 / 3);
  });

  it('is given up between two tiles, and draws as before afterwards', async () => {
    const picture = await pictureOf(lit);
    const before = await drawnPixels(device, renderer, picture, size, cssSize);
    const put = jasmine.createSpy('put');
    expect(await drawLargePicture(device, renderer, picture, TILED, { put, goesOn: (done) => done < 3 })).toBeFalse();
    expect(put).toHaveBeenCalledTimes(3);
    expect(await drawnPixels(device, renderer, picture, size, cssSize)).toEqual(before);
  });
});
