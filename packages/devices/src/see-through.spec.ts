import type { GraphNode, LightRig, Material, MeshPlacing, OpacityMode, StageSet } from '@brelvin/contract';
import {
  compileFor,
  type FrameRenderer,
  newMaterial,
  newRig,
  newSet,
  NO_FLOOR,
  StageScene,
  START_CAMERA,
  type Device,
} from '@brelvin/core';
import { bring, withRenderer } from './testing/with-renderer';

const SIDE = 64;
const size = { width: SIDE, height: SIDE };
const camera = { ...START_CAMERA, azimuth: 0, elevation: 0, distance: 6 };
const rig: LightRig = { ...newRig('dark'), background: [0, 0, 0] };

/** Surfaces that others are seen through, on a real device. */
describe('Seen through', () => {
  let device: Device;
  let renderer: FrameRenderer;

  withRenderer(SIDE, (open) => ({ device, renderer } = open));

  const node = (kind: string, values: GraphNode['values'] = {}): GraphNode => ({ kind, rev: 1, x: 0, y: 0, values });
  const glowing = (colour: readonly number[], cover: number | undefined, mode?: OpacityMode): Material => ({
    ...newMaterial('m'),
    opacity: mode,
    surface: {
      ...newMaterial('m').surface,
      nodes: { colour: node('colour', { value: colour }), cover: node('luminance', { value: [cover ?? 1, cover ?? 1, cover ?? 1] }) },
      ribbons: {
        'dock.colour': { from: 'colour', outlet: 'result' },
        ...(cover === undefined ? {} : { 'dock.opacity': { from: 'cover', outlet: 'result' } }),
      },
    },
  });
  const at = (z: number, x = 0): MeshPlacing => ({ position: [x, 0, z], turn: [0, 0, 0], scale: [1, 1, 1] });

  /** Upright squares, each with a material, by their depth. */
  async function scene(
    squares: Record<string, { material: Material; placing: MeshPlacing; copies?: StageSet['meshes'][string]['copies'] }>,
  ): Promise<StageScene> {
    const plain = newSet('s', 'plane');
    const [mesh] = Object.values(plain.meshes);
    const stage = new StageScene(device, renderer);
    const set: StageSet = {
      ...plain,
      floor: NO_FLOOR,
      meshes: Object.fromEntries(
        Object.entries(squares).map(([id, { placing, copies }]) => [id, { ...mesh!, placing, copies: copies ?? mesh!.copies }]),
      ),
      partRules: Object.fromEntries(
        Object.keys(squares).map((id, order) => [id, { order, mesh: id, pattern: '*', material: id, values: {} }]),
      ),
    };
    stage.show(set);
    for (const [id, { material }] of Object.entries(squares)) {
      const { compiled, problems } = compileFor(device.target, material);
      expect(problems).toEqual([]);
      stage.assign(id, { material, surface: await bring(device, compiled!) });
    }
    return stage;
  }

  async function middleOf(stage: StageScene, seen = camera): Promise<number[]> {
    const pixels = await renderer.measure({ items: stage.items(0), camera: seen, rig, seconds: 0 }, size);
    return [...pixels.subarray((32 * SIDE + 32) * 4).subarray(0, 3)];
  }

  const expectColour = (found: readonly number[], wanted: readonly number[]): void =>
    wanted.forEach((each, channel) => expect(found[channel]).toBeCloseTo(each, 2));

  it('lays a half-covering red over green, whichever was put there first', async () => {
    const red = { material: glowing([1, 0, 0], 0.5), placing: at(1) };
    const green = { material: glowing([0, 1, 0], undefined), placing: at(0) };
    expectColour(await middleOf(await scene({ red, green })), [0.5, 0.5, 0]);
    expectColour(await middleOf(await scene({ green, red })), [0.5, 0.5, 0]);
  });

  it('lays the nearer of two over the farther, and turns that round with the camera', async () => {
    const both = await scene({
      red: { material: glowing([1, 0, 0], 0.5), placing: at(1) },
      blue: { material: glowing([0, 0, 1], 0.5), placing: at(-1) },
    });
    expectColour(await middleOf(both), [0.5, 0, 0.25]);
    expectColour(await middleOf(both, { ...camera, azimuth: Math.PI }), [0.25, 0, 0.5]);
  });

  it('is hidden by what stands in front of it', async () => {
    const green = { material: glowing([0, 1, 0], undefined), placing: at(2) };
    expectColour(await middleOf(await scene({ red: { material: glowing([1, 0, 0], 0.5), placing: at(0) }, green })), [0, 1, 0]);
  });

  it('lays things over in no order: the same whichever was put there first, the nearer counting more', async () => {
    const red = { material: glowing([1, 0, 0], 0.5, 'unsorted'), placing: at(1) };
    const blue = { material: glowing([0, 0, 1], 0.5, 'unsorted'), placing: at(-1) };
    const [one, other] = [await middleOf(await scene({ red, blue })), await middleOf(await scene({ blue, red }))];
    expectColour(one, other);
    // Three quarters are covered, and no light is lost.
    expect((one[0] ?? 0) + (one[2] ?? 0)).toBeCloseTo(0.75, 2);
    expect(one[0]).toBeGreaterThan((one[2] ?? 0) * 1.3);
    const alone = await middleOf(await scene({ red, green: { material: glowing([0, 1, 0], undefined), placing: at(0) } }));
    expectColour(alone, [0.5, 0.5, 0]);
    const hidden = await middleOf(await scene({ red, green: { material: glowing([0, 1, 0], undefined), placing: at(2) } }));
    expectColour(hidden, [0, 1, 0]);
  });

  it('adds light, and cuts holes', async () => {
    const green = { material: glowing([0, 0.5, 0], undefined), placing: at(0) };
    expectColour(await middleOf(await scene({ green, red: { material: glowing([1, 0, 0], 0.5, 'add'), placing: at(1) } })), [0.5, 0.5, 0]);
    expectColour(await middleOf(await scene({ green, red: { material: glowing([1, 0, 0], 0.4, 'cut'), placing: at(1) } })), [0, 0.5, 0]);
    expectColour(await middleOf(await scene({ green, red: { material: glowing([1, 0, 0], 0.6, 'cut'), placing: at(1) } })), [1, 0, 0]);
  });

  it('sorts the copies of a mesh, each with its own colour', async () => {
    const copies = { columns: 1, rows: 2, spacing: 2 };
    const plain = glowing([1, 1, 1], 0.5);
    const nodes = {
      ...plain.surface.nodes,
      copy: node('copyIndex'),
      red: node('colour', { value: [1, 0, 0] }),
      blue: node('colour', { value: [0, 0, 1] }),
      mix: node('mix'),
    };
    const ribbon = (from: string): { from: string; outlet: string } => ({ from, outlet: 'result' });
    const ribbons = {
      'mix.a': ribbon('red'),
      'mix.b': ribbon('blue'),
      'mix.amount': ribbon('copy'),
      'dock.colour': ribbon('mix'),
      'dock.opacity': ribbon('cover'),
    };
    const both = await scene({ row: { material: { ...plain, surface: { ...plain.surface, nodes, ribbons } }, placing: at(0), copies } });
    const front = await middleOf(both);
    const back = await middleOf(both, { ...camera, azimuth: Math.PI });
    expectColour(front, [...back].reverse());
    expect(Math.max(front[0]!, front[2]!)).toBeCloseTo(0.5, 2);
    expect(Math.min(front[0]!, front[2]!)).toBeCloseTo(0.25, 2);
  });

  it('knows how far behind it something stands, and what colour that is', async () => {
    const green = { material: glowing([0, 0.8, 0], undefined), placing: at(-0.5) };
    const looking = (kind: string, outlet: string): Material => ({
      ...newMaterial('m'),
      surface: { ...newMaterial('m').surface, nodes: { look: node(kind) }, ribbons: { 'dock.colour': { from: 'look', outlet } } },
    });
    expectColour(
      await middleOf(await scene({ green, look: { material: looking('sceneDepth', 'gap'), placing: at(0.25) } })),
      [0.75, 0.75, 0.75],
    );
    expectColour(
      await middleOf(await scene({ green, look: { material: looking('sceneColour', 'result'), placing: at(0.25) } })),
      [0, 0.8, 0],
    );
    const meets = looking('meetingGlow', 'result');
    const near = await middleOf(await scene({ green, look: { material: meets, placing: at(-0.45) } }));
    const far = await middleOf(await scene({ green, look: { material: meets, placing: at(0.5) } }));
    expect(near[0]).toBeGreaterThan(0.4);
    expect(far[0]).toBeLessThan(0.001);
  });
});
