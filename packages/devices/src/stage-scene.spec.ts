import type { Graph, LightRig, Material, MaterialImage, OrbitCamera, PartRule, SetMesh, StageSet } from '@brelvin/contract';
import {
  compileFor,
  drawnPixels,
  THUMBNAIL,
  EMPTY_GRAPH,
  FrameRenderer,
  mipChain,
  newMaterial,
  newMesh,
  newLight,
  newRig,
  newSet,
  StageScene,
  START_CAMERA,
  THUMBNAIL_SIZE,
  type MipChain,
  type Device,
} from '@brelvin/core';
import { bring } from './testing/with-renderer';
import { openDevice } from './testing/open-device';

const SIDE = THUMBNAIL_SIZE;
const MIDDLE = SIDE / 2;
const front: OrbitCamera = { ...START_CAMERA, azimuth: 0, elevation: 0 };
const node = (kind: string, rest: Partial<Graph['nodes'][string]> = {}): Graph['nodes'][string] => ({
  kind,
  rev: 1,
  x: 0,
  y: 0,
  values: {},
  ...rest,
});
const rule = (pattern: string, rest: Partial<PartRule>): PartRule => ({ order: 0, pattern, values: {}, ...rest });

/** Sets with several materials, images and copies on a real device: pixels against closed forms. */
describe('StageScene on a device', () => {
  let device: Device;
  let renderer: FrameRenderer;
  let scene: StageScene;
  const dark: LightRig = {
    ...newRig('dark'),
    sun: newLight('sun', { direction: [0, 0, 1], colour: [1, 1, 1], intensity: 0 }),
    background: [0, 0, 0],
  };

  beforeAll(async () => {
    device = await openDevice(SIDE);
    renderer = new FrameRenderer(device);
  });

  beforeEach(() => {
    scene = new StageScene(device, renderer);
    scene.setBench('bench');
  });

  afterEach(() => scene.destroy());
  afterAll(() => device.destroy());

  /** Gives off one colour, or what a graph says. */
  function glowing(colour: readonly number[]): Material {
    return withGraph({
      ...EMPTY_GRAPH,
      nodes: { c: node('colour', { values: { value: colour } }) },
      ribbons: { 'dock.colour': { from: 'c', outlet: 'result' } },
    });
  }

  function withGraph(surface: Graph, rest: Partial<Material> = {}): Material {
    return { ...newMaterial('m'), surface, ...rest };
  }

  async function wear(id: string, material: Material): Promise<void> {
    const { compiled, problems } = compileFor(device.target, material);
    expect(problems).toEqual([]);
    scene.assign(id, { material, surface: await bring(device, compiled!) });
  }

  async function pixels(seconds = 0, camera = front): Promise<(x: number, y: number) => number[]> {
    const data = await drawnPixels(device, renderer, { items: scene.items(seconds), camera, rig: dark, seconds }, THUMBNAIL);
    return (x, y) => [...data.slice((Math.round(y) * SIDE + Math.round(x)) * 4, (Math.round(y) * SIDE + Math.round(x)) * 4 + 3)];
  }

  const plane = (z: number, changes: Partial<SetMesh> = {}): SetMesh =>
    newMesh('plane', {}, { placing: { position: [0, 0, z], turn: [0, 0, 0], scale: [1, 1, 1] }, ...changes });
  const set = (meshes: StageSet['meshes'], partRules: StageSet['partRules'] = {}): StageSet => ({ ...newSet('s'), meshes, partRules });

  it('puts each material on its parts', async () => {
    await wear('red', glowing([1, 0, 0]));
    await wear('green', glowing([0, 1, 0]));
    scene.show(
      set(
        {
          a: plane(0, { placing: { position: [-1.1, 0, 0], turn: [0, 0, 0], scale: [1, 1, 1] } }),
          b: plane(0, { placing: { position: [1.1, 0, 0], turn: [0, 0, 0], scale: [1, 1, 1] } }),
        },
        { r: rule('*', { mesh: 'a', material: 'red' }), g: rule('*', { mesh: 'b', material: 'green' }) },
      ),
    );
    const at = await pixels();
    expect(at(MIDDLE - 60, MIDDLE)[0]).toBeGreaterThan(250);
    expect(at(MIDDLE + 60, MIDDLE)[1]).toBeGreaterThan(250);
  });

  it('draws what is hatched where a material has no program', async () => {
    scene.show(set({ a: plane(0) }));
    const at = await pixels();
    const [red = 0, green = 0, blue = 0] = at(MIDDLE, MIDDLE);
    expect(Math.abs(red - green) + Math.abs(green - blue)).toBeLessThan(6);
    expect(red).toBeGreaterThan(20);
  });

  it('draws over what lies in front by a depth offset, but not from farther away', async () => {
    await wear('red', glowing([1, 0, 0]));
    await wear('green', glowing([0, 1, 0]));
    const meshes = { near: plane(0), far: plane(-0.2) };
    const rules = (offset: number): StageSet['partRules'] => ({
      n: rule('*', { mesh: 'near', material: 'red' }),
      f: rule('*', { mesh: 'far', material: 'green', depthOffset: offset }),
    });
    for (const [offset, channel] of [
      [0, 0],
      [0.1, 0],
      [0.3, 1],
    ] as const) {
      scene.show(set(meshes, rules(offset)));
      expect((await pixels())(MIDDLE, MIDDLE)[channel])
        .withContext(`offset ${offset}`)
        .toBeGreaterThan(250);
    }
  });

  it('leaves out the sides it is told to, of mirrored meshes too', async () => {
    await wear('bench', glowing([1, 1, 1]));
    for (const scale of [
      [1, 1, 1],
      [-1, 1, 1],
    ]) {
      const mesh = plane(0, { placing: { position: [0, 0, 0], turn: [0, 0, 0], scale } });
      for (const [faces, seen] of [
        ['front', true],
        ['back', false],
        ['both', true],
      ] as const) {
        scene.show(set({ a: mesh }, { r: rule('*', { faces }) }));
        expect(((await pixels())(MIDDLE, MIDDLE)[0] ?? 0) > 250)
          .withContext(`${faces} at scale ${scale.join()}`)
          .toBe(seen);
      }
    }
  });

  it('keeps normals outwards on a mirrored mesh', async () => {
    await wear(
      'bench',
      withGraph({ ...EMPTY_GRAPH, nodes: { n: node('normal') }, ribbons: { 'dock.colour': { from: 'n', outlet: 'result' } } }),
    );
    const mesh = newMesh('cube', { size: 1.5 }, { placing: { position: [0, 0, 0], turn: [0, 0, 0], scale: [-1, 1, 1] } });
    scene.show(set({ a: mesh }));
    expect((await pixels())(MIDDLE, MIDDLE)[2]).toBeGreaterThan(250);
  });

  it('tells copies apart by their index, and turns them on the clock', async () => {
    const graph: Graph = {
      ...EMPTY_GRAPH,
      nodes: { i: node('copyIndex'), m: node('multiply', { values: { b: 0.25 } }) },
      ribbons: { 'm.a': { from: 'i', outlet: 'result' }, 'dock.colour': { from: 'm', outlet: 'result' } },
    };
    await wear('bench', withGraph(graph));
    const motion = { kind: 'spin', axis: 'y', speed: 0.25, angle: 0 } as const;
    const small = { position: [0, 0, 0], turn: [0, 0, 0], scale: [0.2, 0.2, 0.2] };
    scene.show(set({ a: plane(0, { placing: small, copies: { columns: 3, rows: 1, spacing: 0.8 }, motion }) }));
    const at = await pixels();
    const step = Math.round((0.8 / (2 * 5 * Math.tan(front.fieldOfView / 2))) * SIDE);
    const reds = [-1, 0, 1].map((copy) => at(MIDDLE + copy * step, MIDDLE)[0] ?? 0);
    expect(reds[0]).toBe(0);
    expect(reds[1]).toBeGreaterThan(reds[0]! + 50);
    expect(reds[2]).toBeGreaterThan(reds[1]! + 20);
    // A quarter turn later each is seen edge on.
    expect((await pixels(1))(MIDDLE + step + 8, MIDDLE)[0]).toBe(0);
  });

  const image: MaterialImage = {
    name: 'p',
    asset: 'a'.repeat(64),
    width: 2,
    height: 2,
    role: 'colour',
    wrapX: 'clamp',
    wrapY: 'clamp',
    filter: 'sharp',
    uvSet: 0,
  };
  /** Red, green over blue, grey 188. */
  const four = Uint8Array.from([255, 0, 0, 255, 0, 255, 0, 255, 0, 0, 255, 255, 188, 188, 188, 255]);

  async function pictured(
    change: Partial<MaterialImage>,
    values: Graph['nodes'][string]['values'] = {},
  ): Promise<(x: number, y: number) => number[]> {
    const used = { ...image, asset: JSON.stringify(change).padEnd(64, 'x'), ...change };
    const graph: Graph = {
      ...EMPTY_GRAPH,
      nodes: { i: node('image', { image: 'pic', values }) },
      ribbons: { 'dock.colour': { from: 'i', outlet: 'colour' } },
    };
    const chain: MipChain = mipChain({ width: 2, height: 2, data: four }, used.role);
    await renderer.images.bring([used], async () => chain);
    await wear('bench', withGraph(graph, { images: { pic: used } }));
    scene.show(set({ a: plane(0) }));
    return pixels();
  }

  it('shows an image the right way up, and decodes its colours once', async () => {
    const at = await pictured({});
    expect(at(MIDDLE - 20, MIDDLE - 20)[0]).toBeGreaterThan(250);
    expect(at(MIDDLE + 20, MIDDLE - 20)[1]).toBeGreaterThan(250);
    expect(at(MIDDLE - 20, MIDDLE + 20)[2]).toBeGreaterThan(250);
    expect(at(MIDDLE + 20, MIDDLE + 20)[0]).toBeCloseTo(188, -0.5);
  });

  it('reads data as they are: 188 of 255 is 0.737, which shows as 222', async () => {
    const at = await pictured({ role: 'data' });
    expect(Math.abs((at(MIDDLE + 20, MIDDLE + 20)[0] ?? 0) - 222)).toBeLessThan(2);
  });

  it('repeats, shifts and turns it', async () => {
    const repeated = await pictured({ wrapX: 'repeat', wrapY: 'repeat' }, { repeat: [2, 2] });
    expect(repeated(MIDDLE - 50, MIDDLE - 50)[0]).toBeGreaterThan(250);
    expect(repeated(MIDDLE + 10, MIDDLE + 10)[0]).toBeGreaterThan(250);
    const shifted = await pictured({ wrapX: 'repeat' }, { offset: [0.5, 0] });
    expect(shifted(MIDDLE - 20, MIDDLE - 20)[1]).toBeGreaterThan(250);
    // A quarter turn counter-clockwise brings the upper right to the upper left.
    const turned = await pictured({}, { turn: Math.PI / 2 });
    expect(turned(MIDDLE - 20, MIDDLE - 20)[1]).toBeGreaterThan(250);
    const clamped = await pictured({}, { repeat: [3, 1] });
    expect(clamped(MIDDLE + 40, MIDDLE - 20)[1]).toBeGreaterThan(250);
  });

  it('shows a grey check while an image is on its way, and in its place when there is none', async () => {
    const graph: Graph = {
      ...EMPTY_GRAPH,
      nodes: { i: node('image') },
      ribbons: { 'dock.colour': { from: 'i', outlet: 'colour' } },
    };
    await wear('bench', withGraph(graph));
    scene.show(set({ a: plane(0) }));
    const at = await pixels();
    expect(at(MIDDLE - 20, MIDDLE - 20)).not.toEqual(at(MIDDLE + 20, MIDDLE - 20));
    expect(new Set(at(MIDDLE, MIDDLE - 20)).size).toBe(1);
  });
});
