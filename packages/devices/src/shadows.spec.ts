import type { LightRig, OrbitCamera, StageSet } from '@brelvin/contract';
import {
  ballRound,
  buildMesh,
  compileFor,
  type FrameRenderer,
  hitPart,
  GENERATED_SHAPES,
  newLight,
  newMaterial,
  newMesh,
  newRig,
  newSet,
  sightLine,
  StageScene,
  START_CAMERA,
  WHOLE_PICTURE,
  type MeshData,
  type Device,
} from '@brelvin/core';
import { bring, withRenderer } from './testing/with-renderer';

const SIDE = 96;
const size = { width: SIDE, height: SIDE };
const camera: OrbitCamera = { ...START_CAMERA, distance: 6 };

/** Shadows on a real device, against rays cast at the same meshes. */
describe('Shadows', () => {
  let device: Device;
  let renderer: FrameRenderer;

  withRenderer(SIDE, (open) => ({ device, renderer } = open));

  const sunFrom = (direction: readonly number[], softness = 0): LightRig => ({
    ...newRig('sun'),
    sun: newLight('sun', { direction, softness, casts: true }),
    ambient: newLight('ambient', { on: false }),
    background: [0, 0, 0],
  });

  async function standing(set: StageSet): Promise<StageScene> {
    const scene = new StageScene(device, renderer);
    scene.setBench('m');
    scene.show(set);
    const material = newMaterial('m');
    const { compiled } = compileFor(device.target, material, undefined, { variants: ['inspect', 'shadowed'] });
    const surface = await bring(device, compiled!);
    for (const id of ['m', 'floor']) scene.assign(id, { material, surface });
    return scene;
  }

  const shadowed = (scene: StageScene, rig: LightRig, view: OrbitCamera = camera): Promise<Float32Array> => {
    const picture = { items: scene.items(0), camera: view, rig, seconds: 0, casters: scene.casters(0) };
    return renderer.measure({ ...picture, inspection: { ...WHOLE_PICTURE, view: 'shadow' } }, size);
  };

  interface Seen {
    readonly point: readonly number[];
    readonly normal: readonly number[];
  }

  /** What a pixel sees of a mesh: the point, and the side of its plane that is towards the eye. */
  function seenAt(data: MeshData, x: number, y: number): Seen | undefined {
    const whole = { first: 0, count: data.indices.length };
    const hit = (dx: number, dy: number): readonly number[] | undefined => {
      const { origin, direction } = sightLine(camera, ((x + 0.5 + dx) / SIDE) * 2 - 1, 1 - ((y + 0.5 + dy) / SIDE) * 2, 1);
      const away = hitPart(data, whole, { origin, direction });
      return away === undefined ? undefined : origin.map((each, axis) => each + (direction[axis] ?? 0) * away);
    };
    const [point, right, down] = [hit(0, 0), hit(0.02, 0), hit(0, 0.02)];
    if (!point || !right || !down) return undefined;
    const [u, v] = [right, down].map((each) => each.map((value, axis) => value - (point[axis] ?? 0))) as [number[], number[]];
    const cross = [0, 1, 2].map((axis) => {
      const [i, j] = [(axis + 1) % 3, (axis + 2) % 3];
      return (v[i] ?? 0) * (u[j] ?? 0) - (v[j] ?? 0) * (u[i] ?? 0);
    });
    const length = Math.hypot(...cross);
    return length < 1e-12 ? undefined : { point, normal: cross.map((each) => each / length) };
  }

  const alike = (a: readonly number[], b: readonly number[]): number => a.reduce((sum, each, axis) => sum + each * (b[axis] ?? 0), 0);

  function litByRay(data: MeshData, { point, normal }: Seen, toSun: readonly number[]): boolean {
    const origin = point.map((each, axis) => each + (normal[axis] ?? 0) * 1e-3);
    return hitPart(data, { first: 0, count: data.indices.length }, { origin, direction: toSun }) === undefined;
  }

  const SUNS = Array.from({ length: 8 }, (_, index) => {
    const [around, up] = [(index * Math.PI) / 4 + 0.2, index % 2 ? 0.9 : 0.35];
    return [Math.sin(around) * Math.cos(up), Math.sin(up), Math.cos(around) * Math.cos(up)];
  });
  const BESIDE = [
    [-2, 0],
    [2, 0],
    [0, -2],
    [0, 2],
  ] as const;
  /** From inside, or without a formula of their own, there is nothing to compare. */
  const shapes = GENERATED_SHAPES.filter((shape) => !['room', 'height', 'surface'].includes(shape));

  for (const shape of shapes) {
    it(`are free of acne and gaps: ${shape} under eight suns`, async () => {
      const set = { ...newSet(shape, shape), meshes: { mesh: newMesh(shape) } };
      const data = buildMesh(newMesh(shape));
      const scene = await standing(set);
      const spots: { readonly x: number; readonly y: number; readonly here: Seen; readonly around: readonly Seen[] }[] = [];
      for (let y = 5; y < SIDE; y += 8) {
        for (let x = 5; x < SIDE; x += 8) {
          const here = seenAt(data, x, y);
          const around = here ? BESIDE.flatMap(([dx, dy]) => seenAt(data, x + dx, y + dy) ?? []) : [];
          if (here && around.length === BESIDE.length) spots.push({ x, y, here, around });
        }
      }
      let [looked, wrong] = [0, 0];
      for (const toSun of SUNS) {
        const seen = await shadowed(scene, sunFrom(toSun));
        for (const { x, y, here, around } of spots) {
          // What hardly faces the sun is dark by its facing, not by its shadow.
          if (alike(here.normal, toSun) < 0.2) continue;
          const lit = litByRay(data, here, toSun);
          // Within two pixels of a shadow's edge either answer is right.
          if (around.some((each) => litByRay(data, each, toSun) !== lit)) continue;
          looked++;
          const free = seen[(y * SIDE + x) * 4] ?? 0;
          if (lit ? free < 0.9 : free > 0.1) wrong++;
        }
      }
      expect(looked).toBeGreaterThan(30);
      expect(wrong / looked)
        .withContext(`${wrong} of ${looked}`)
        .toBeLessThan(0.02);
      scene.destroy();
    }, 60_000);
  }

  const onFloor = (): StageSet => ({ ...newSet('ball', 'sphere'), floor: { shown: true, height: -1, size: 12, look: 'solid' } });
  /** Brightness at a place of the floor, seen from above. */
  const fromAbove: OrbitCamera = { target: [0, -1, 0], distance: 12, azimuth: 0, elevation: 1.56, fieldOfView: 0.8 };

  async function floorAt(rig: LightRig, x: number, z: number, set = onFloor()): Promise<number> {
    const scene = await standing(set);
    const picture = { items: scene.items(0), camera: fromAbove, rig, seconds: 0, casters: scene.casters(0) };
    const seen = await renderer.measure(picture, size);
    scene.destroy();
    const half = 12 * Math.tan(0.4);
    const [px, py] = [Math.round(((x / half + 1) / 2) * SIDE), Math.round(((z / half + 1) / 2) * SIDE)];
    return seen[(py * SIDE + px) * 4] ?? NaN;
  }

  it('fall where they must: a ball under a slanted sun', async () => {
    const rig = sunFrom([1, 1, 0].map((each) => each / Math.SQRT2));
    // The ball's centre is one metre above the floor: its shadow's middle lies one metre to the left.
    expect(await floorAt(rig, -1.6, 0)).toBeLessThan(0.02);
    expect(await floorAt(rig, 2.2, 0)).toBeGreaterThan(0.3);
    expect(await floorAt(rig, -1.6, 2)).toBeGreaterThan(0.3);
  });

  it('are those of what stands there now, not of another scene that stood alike', async () => {
    const rig = sunFrom([0.6, 0.8, 0]);
    const bare: StageSet = { ...onFloor(), partRules: { off: { pattern: '*', order: 0, values: {}, casts: false } } };
    expect(await floorAt(rig, -1.6, 0, bare)).toBeGreaterThan(0.3);
    expect(await floorAt(rig, -1.6, 0)).toBeLessThan(0.02);
    expect(await floorAt(rig, -1.6, 0, bare)).toBeGreaterThan(0.3);
  });

  it('are thrown by spots in their cone', async () => {
    const rig: LightRig = {
      ...sunFrom([0, 1, 0]),
      sun: newLight('sun', { on: false }),
      lights: {
        spot: newLight('spot', {
          position: [4, 4, 0],
          direction: [Math.SQRT1_2, Math.SQRT1_2, 0],
          cone: [0.6, 0.7],
          intensity: 1,
          casts: true,
        }),
      },
    };
    expect(await floorAt(rig, -1.6, 0)).toBeLessThan(0.02);
    expect(await floorAt(rig, 0, 1.8)).toBeGreaterThan(0.2);
  });

  it('leave out what does not cast, and what does not receive', async () => {
    const rig = sunFrom([1, 1, 0].map((each) => each / Math.SQRT2));
    const rule = { order: 0, pattern: '*', values: {} };
    const none = { ...onFloor(), partRules: { r: { ...rule, mesh: 'mesh', casts: false } } };
    expect(await floorAt(rig, -1.6, 0, none)).toBeGreaterThan(0.3);
    const deaf = { ...onFloor(), partRules: { r: { ...rule, pattern: 'floor', receives: false } } };
    expect(await floorAt(rig, -1.6, 0, deaf)).toBeGreaterThan(0.3);
    const off = { ...rig, sun: { ...rig.sun, casts: false } };
    expect(await floorAt(off, -1.6, 0)).toBeGreaterThan(0.3);
  });

  it('have softer edges where that is asked for', async () => {
    const width = async (softness: number): Promise<number> => {
      const rig = sunFrom([0, 1, 0], softness);
      const scene = await standing({
        ...onFloor(),
        meshes: { mesh: newMesh('plane', {}, { placing: { position: [0, 0, 0], turn: [-Math.PI / 2, 0, 0], scale: [1, 1, 1] } }) },
      });
      const low: OrbitCamera = { target: [1, -1, 0], distance: 3, azimuth: 0.4, elevation: 0.5, fieldOfView: 0.3 };
      const seen = await shadowed(scene, rig, low);
      scene.destroy();
      let between = 0;
      for (let at = 0; at < seen.length; at += 4) if ((seen[at] ?? 0) > 0.05 && (seen[at] ?? 0) < 0.95) between++;
      return between;
    };
    expect(await width(0.03)).toBeGreaterThan((await width(0)) * 1.5);
  });

  it('do not change while one orbits, and are drawn again only when something that matters changes', async () => {
    const rig = sunFrom([0.6, 0.7, 0.4]);
    const scene = await standing(onFloor());
    await shadowed(scene, rig);
    const passes = (): number => device.statistics.passes;
    let before = passes();
    await shadowed(scene, rig, { ...camera, azimuth: 2 });
    const orbiting = passes() - before;
    before = passes();
    await shadowed(scene, sunFrom([0.2, 0.9, 0.4]));
    expect(passes() - before).toBe(orbiting + 2);
    scene.destroy();
  });

  it('fit a ball round what stands there, and cope with nothing', () => {
    const ball = ballRound([-1, 0, 0, 1, 0, 0, 0, 2, 0]);
    expect(ball.middle as object).toEqual([0, 1, 0]);
    expect(ball.radius).toBeGreaterThan(Math.SQRT2);
    expect(ballRound([]).radius).toBe(0);
  });
});
