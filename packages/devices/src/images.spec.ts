import type { GraphNode, Material, MaterialImage, OrbitCamera } from '@brelvin/contract';
import {
  buildMesh,
  compileFor,
  linearFromSrgb,
  mipChain,
  newLight,
  newMaterial,
  newRig,
  START_CAMERA,
  type Device,
  type FrameRenderer,
  type MipChain,
  type MeshRecipe,
  type Pixels,
} from '@brelvin/core';
import { bring, withRenderer } from './testing/with-renderer';

const SIDE = 64;
const size = { width: SIDE, height: SIDE };
/** A plane of two metres fills the picture to its edges. */
const camera: OrbitCamera = {
  ...START_CAMERA,
  target: [0, 0, 0],
  azimuth: 0,
  elevation: 0,
  distance: 2,
  fieldOfView: 2 * Math.atan(0.5),
  orthographic: true,
};
const rig = {
  ...newRig('dark'),
  sun: newLight('sun', { intensity: 0 }),
  ambient: newLight('ambient', { intensity: 0 }),
  background: [1, 0, 0],
};
const PLANE: MeshRecipe = { shape: 'plane', numbers: { width: 2, height: 2, segments: 4 }, smooth: true };

let made = 0;

function imageOf({ width, height }: Pixels, change: Partial<MaterialImage> = {}): MaterialImage {
  const plain = { role: 'data', wrapX: 'repeat', wrapY: 'repeat', filter: 'smooth', uvSet: 0 } as const;
  return { name: 'i', asset: String(++made).padStart(64, '0'), width, height, ...plain, ...change };
}

function pixelsOf(width: number, height: number, at: (x: number, y: number) => readonly number[]): Pixels {
  const data = new Uint8Array(width * height * 4).fill(255);
  for (let index = 0; index < width * height; index++) data.set(at(index % width, Math.floor(index / width)), index * 4);
  return { width, height, data };
}

const node = (kind: string, rest: Partial<GraphNode> = {}): GraphNode => ({ kind, rev: 1, x: 0, y: 0, values: {}, ...rest });

function materialOf(nodes: Record<string, GraphNode>, ribbons: Record<string, string>, image?: MaterialImage): Material {
  const plain = newMaterial('m');
  const run = Object.entries(ribbons).map(([inlet, from]) => {
    const [source = '', outlet = 'result'] = from.split('.');
    return [inlet, { from: source, outlet }] as const;
  });
  return { ...plain, images: image ? { pic: image } : {}, surface: { ...plain.surface, nodes, ribbons: Object.fromEntries(run) } };
}

describe('Images on a device', () => {
  let device: Device;
  let renderer: FrameRenderer;

  withRenderer(SIDE, (open) => ({ device, renderer } = open));

  /** Scene-linear red, green, blue of every pixel, from the top. */
  async function drawn(
    material: Material,
    pixels?: Pixels,
    recipe: MeshRecipe = PLANE,
    seen: OrbitCamera = camera,
    chain = mipChain,
  ): Promise<Float32Array> {
    const { compiled, problems } = compileFor(device.target, material);
    expect(problems).toEqual([]);
    const mesh = renderer.uploadMesh(buildMesh(recipe));
    const surface = await bring(device, compiled!);
    if (pixels) await renderer.images.bring(Object.values(material.images), async ({ role }) => chain(pixels, role));
    const result = await renderer.measure({ items: [{ mesh, surface, material }], camera: seen, rig, seconds: 0 }, size);
    surface.destroy();
    mesh.destroy();
    return result;
  }

  const shown = (image: MaterialImage, values: GraphNode['values'] = {}): Material =>
    materialOf({ i: node('image', { image: 'pic', values }) }, { 'dock.colour': 'i.colour' }, image);

  it('are read as light when they are colours, and as they are stored when they are data', async () => {
    const grey = pixelsOf(4, 4, () => [128, 64, 255, 255]);
    for (const [role, wanted] of [
      ['colour', [128, 64, 255].map((each) => linearFromSrgb(each / 255))],
      ['data', [128, 64, 255].map((each) => each / 255)],
    ] as const) {
      const found = await drawn(shown(imageOf(grey, { role })), grey);
      wanted.forEach((each, channel) => expect(found[channel]).withContext(role).toBeCloseTo(each, 2));
    }
  });

  it('stand whole where they are so large that they come in bands', async () => {
    const [width, height] = [1536, 2048];
    const data = new Uint8Array(width * height * 4).fill(255);
    for (let row = 0; row < height; row++) data.fill(Math.floor((row / height) * 256), row * width * 4, (row + 1) * width * 4);
    const pixels = { width, height, data };
    const found = await drawn(shown(imageOf(pixels, { filter: 'sharp' })), pixels);
    for (let row = 0; row < SIDE; row++) expect(found[row * SIDE * 4]).toBeCloseTo((row + 0.5) / SIDE, 2);
  });

  it('are averaged in light from afar: black and white by turns is half the light, not the light of half the number', async () => {
    const checks = pixelsOf(64, 64, (x, y) => Array<number>(3).fill((x + y) % 2 ? 255 : 0));
    const far = { repeat: [64, 64] };
    const colour = await drawn(shown(imageOf(checks, { role: 'colour' }), far), checks);
    const data = await drawn(shown(imageOf(checks, { role: 'data' }), far), checks);
    for (const at of [0, 400, 4000]) {
      expect(colour[at * 4]).toBeCloseTo(0.5, 2);
      expect(data[at * 4]).toBeCloseTo(0.5, 2);
    }
    expect(linearFromSrgb(0.5)).withContext('what an average of stored numbers would be').toBeLessThan(0.22);
  });

  it('are averaged by the device as exactly, where they come without smaller levels', async () => {
    const noise = pixelsOf(64, 64, (x, y) => [(x * 37 + y * 91) % 256, (x * y * 11) % 256, (y * 53) % 256, 255]);
    const onlyLargest = ({ width, height, data }: Pixels): MipChain => ({ width, height, levels: [data] });
    for (const role of ['colour', 'data'] as const) {
      for (const repeats of [2, 8, 32]) {
        const material = (): Material => shown(imageOf(noise, { role }), { repeat: [repeats, repeats] });
        const [ours, theirs] = [await drawn(material(), noise), await drawn(material(), noise, PLANE, camera, onlyLargest)];
        const farthest = ours.reduce((most, each, at) => Math.max(most, Math.abs(each - (theirs[at] ?? 0))), 0);
        expect(farthest)
          .withContext(`${role}, ${repeats} times`)
          .toBeLessThan(2.5 / 255);
        expect(Math.max(...ours)).toBeGreaterThan(0.2);
      }
    }
  });

  // OpenGL ES 3.0.6 specification, table 3.19 (wrap modes) and equations 3.21 to 3.23 (filters).
  const wraps = {
    repeat: (at: number, count: number) => ((at % count) + count) % count,
    mirror: (at: number, count: number) => {
      const turn = ((at % (2 * count)) + 2 * count) % (2 * count);
      return turn < count ? turn : 2 * count - 1 - turn;
    },
    clamp: (at: number, count: number) => Math.min(Math.max(at, 0), count - 1),
  };
  const tile = pixelsOf(4, 4, (x, y) => [x * 60 + 20, y * 70 + 10, ((x * 3 + y * 5) % 7) * 30]);

  for (const wrapX of ['repeat', 'mirror', 'clamp'] as const)
    for (const wrapY of ['repeat', 'mirror', 'clamp'] as const)
      for (const filter of ['smooth', 'sharp'] as const)
        it(`go beyond their edges as the standard says: ${wrapX}, ${wrapY}, ${filter}`, async () => {
          const [repeat, offset] = [
            [2.4, 2.2],
            [-0.7, -0.6],
          ] as const;
          const found = await drawn(shown(imageOf(tile, { wrapX, wrapY, filter }), { repeat: [...repeat], offset: [...offset] }), tile);
          const texel = (x: number, y: number, channel: number): number =>
            (tile.data[(wraps[wrapY](y, 4) * 4 + wraps[wrapX](x, 4)) * 4 + channel] ?? 0) / 255;
          let worst = 0;
          for (let y = 0; y < SIDE; y++) {
            for (let x = 0; x < SIDE; x++) {
              const u = (((x + 0.5) / SIDE) * repeat[0] + offset[0]) * 4;
              const v = (((y + 0.5) / SIDE) * repeat[1] + offset[1]) * 4;
              // On the border of two texels either may be meant.
              if (filter === 'sharp' && [u, v].some((at) => Math.abs(at - Math.round(at)) < 0.03)) continue;
              const [s, t] = [u - 0.5, v - 0.5];
              const [x0, y0] = filter === 'sharp' ? [Math.floor(u), Math.floor(v)] : [Math.floor(s), Math.floor(t)];
              const [a, b] = filter === 'sharp' ? [0, 0] : [s - x0, t - y0];
              for (let channel = 0; channel < 3; channel++) {
                const top = texel(x0, y0, channel) * (1 - a) + texel(x0 + 1, y0, channel) * a;
                const bottom = texel(x0, y0 + 1, channel) * (1 - a) + texel(x0 + 1, y0 + 1, channel) * a;
                worst = Math.max(worst, Math.abs((found[(y * SIDE + x) * 4 + channel] ?? 0) - (top * (1 - b) + bottom * b)));
              }
            }
          }
          // Weights between pixels have eight bits on some devices.
          expect(worst).toBeLessThan(0.01);
        });

  it('lie on the second UV set where they say so: a cube’s six sides by turns, not each', async () => {
    const atlas = pixelsOf(3, 2, (x, y) => [x * 100, y * 200, 0]);
    const cube: MeshRecipe = { shape: 'cube', numbers: { size: 2 }, smooth: false };
    const middle = ((SIDE / 2) * SIDE + SIDE / 2) * 4;
    const second = await drawn(shown(imageOf(atlas, { uvSet: 1, filter: 'sharp' })), atlas, cube);
    expect([second[middle], second[middle + 1]]).toEqual([0, 0]);
    const right = await drawn(shown(imageOf(atlas, { uvSet: 1, filter: 'sharp' })), atlas, cube, { ...camera, azimuth: Math.PI / 2 });
    expect(right[middle]).toBeCloseTo(200 / 255, 2);
    const first = await drawn(shown(imageOf(atlas, { uvSet: 0, filter: 'sharp' })), atlas, cube);
    expect(first[middle]).toBeCloseTo(100 / 255, 2);
  });

  it('bend normals by their heights: by how much they rise on a metre', async () => {
    const ramp = pixelsOf(64, 64, (x) => [Math.round((x / 63) * 255), 0, 0]);
    const depth = 0.4;
    const material = materialOf(
      { n: node('normalFromHeightMap', { image: 'pic', values: { depth } }), c: node('normalAsColour') },
      { 'c.normal': 'n', 'dock.colour': 'c' },
      imageOf(ramp, { wrapX: 'clamp', wrapY: 'clamp' }),
    );
    const found = await drawn(material, ramp);
    const slope = depth / 2;
    const at = (20 * SIDE + 30) * 4;
    expect((found[at] ?? 0) * 2 - 1).toBeCloseTo(-slope / Math.hypot(slope, 1), 1);
    expect((found[at + 1] ?? 0) * 2 - 1).toBeCloseTo(0, 1);
    expect((found[at + 2] ?? 0) * 2 - 1).toBeCloseTo(1 / Math.hypot(slope, 1), 1);
  });

  it('look the same from three sides on a plane as laid on by its UVs', async () => {
    const straight = await drawn(shown(imageOf(tile)), tile);
    const plane = imageOf(tile);
    const sides = materialOf(
      { i: node('triplanar', { image: 'pic', values: { size: 2, offset: [1, -1, 0] } }) },
      { 'dock.colour': 'i.colour' },
      plane,
    );
    const found = await drawn(sides, tile);
    let worst = 0;
    for (let at = 0; at < found.length; at++) if (at % 4 < 3) worst = Math.max(worst, Math.abs((found[at] ?? 0) - (straight[at] ?? 0)));
    expect(worst).toBeLessThan(0.02);
  });

  describe('that move a cube', () => {
    const cube: MeshRecipe = { shape: 'cube', numbers: { size: 1, segments: 6 }, smooth: false };
    const askew: OrbitCamera = { ...camera, azimuth: 0.7, elevation: 0.5 };
    const white = pixelsOf(2, 2, () => [255, 255, 255]);

    const swollen = (along?: string): Material =>
      materialOf(
        {
          i: node('image', { image: 'pic' }),
          d: node('displaceByHeight', { values: { scale: 0.25, middle: 0 } }),
          n: node('normal'),
          c: node('colour', { values: { value: [0, 1, 0] } }),
        },
        { 'd.height': 'i.red', ...(along ? { 'd.along': along } : {}), 'dock.offset': 'd', 'dock.colour': 'c' },
        imageOf(white),
      );

    /** Pixels of the background that have the cube at their left and at their right. */
    async function gaps(material: Material): Promise<number> {
      const found = await drawn(material, white, cube, askew);
      let count = 0;
      for (let y = 0; y < SIDE; y++) {
        const solid = Array.from({ length: SIDE }, (_, x) => (found[(y * SIDE + x) * 4 + 1] ?? 0) > 0.5);
        const [first, last] = [solid.indexOf(true), solid.lastIndexOf(true)];
        if (first >= 0) count += solid.slice(first, last).filter((each) => !each).length;
      }
      return count;
    }

    it('leave no gap at its edges, as its own normals would', async () => {
      expect(await gaps(swollen())).toBe(0);
      expect(await gaps(swollen('n'))).toBeGreaterThan(50);
    });
  });
});
