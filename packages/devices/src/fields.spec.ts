import type { LightRig, Material, OrbitCamera, SetMesh, StageSet } from '@brelvin/contract';
import {
  compileFor,
  demoSet,
  type Device,
  type FrameRenderer,
  type Inspection,
  litProgram,
  newLight,
  newMaterial,
  newMesh,
  newRig,
  newSet,
  StageScene,
  START_CAMERA,
  WHOLE_PICTURE,
} from '@brelvin/core';
import { bring, withRenderer } from './testing/with-renderer';

const SIDE = 96;
const size = { width: SIDE, height: SIDE };
const camera: OrbitCamera = { ...START_CAMERA, target: [0, 0, 0], distance: 5, azimuth: 0.6, elevation: 0.4 };

/** Fields on a real device, against meshes of the same shape, and closed forms. */
describe('Fields', () => {
  let device: Device;
  let renderer: FrameRenderer;

  withRenderer(SIDE, (open) => ({ device, renderer } = open));

  const field = (formula: string, changes: Partial<SetMesh> = {}): SetMesh => ({
    ...newMesh('field', {}, { order: 0 }),
    name: 'Field',
    formula,
    ...changes,
  });
  const plain = (expression: string): string => `float field(vec3 p) { return ${expression}; }`;
  const setOf = (meshes: Record<string, SetMesh>, changes: Partial<StageSet> = {}): StageSet => ({ ...newSet('s'), meshes, ...changes });

  async function standing(set: StageSet, rig = newRig('day'), others: Record<string, Material> = {}): Promise<StageScene> {
    const scene = new StageScene(device, renderer);
    scene.setBench('m');
    scene.show(set);
    for (const [id, material] of Object.entries({ m: newMaterial('m'), floor: newMaterial('floor'), ...others })) {
      const variants = ['inspect', ...(litProgram(rig) === 'plain' ? [] : [litProgram(rig)])] as ('inspect' | 'shadowed' | 'occluded')[];
      const [mesh, on] = (['mesh', 'field'] as const).map(
        (wornBy) => compileFor(device.target, material, undefined, { variants, wornBy }).compiled,
      );
      scene.assign(id, { material, surface: await bring(device, mesh!), onField: await bring(device, on!) });
    }
    return scene;
  }

  type Seen = Awaited<ReturnType<FrameRenderer['record']>>;

  async function seen(set: StageSet, view = camera): Promise<Seen> {
    const scene = await standing(set);
    const record = await renderer.record({ items: scene.items(0), camera: view, rig: newRig('day'), seconds: 0 }, size);
    scene.destroy();
    return record;
  }

  /** Pixels of which something stands in one of two records only, and not at a pixel beside it in the other. */
  function apart(a: Seen, b: Seen): number {
    let far = 0;
    for (let y = 1; y < SIDE - 1; y++)
      for (let x = 1; x < SIDE - 1; x++) {
        const there = a.numbers[y * SIDE + x]! > 0;
        const near = [-1, 0, 1].some((dy) => [-1, 0, 1].some((dx) => b.numbers[(y + dy) * SIDE + x + dx]! > 0 === there));
        if (!near) far++;
      }
    return far;
  }

  /** The means of how far depths and normals are from each other where both stand, metres and radians. */
  function differences(a: Seen, b: Seen): { depth: number; angle: number; pixels: number } {
    let [depth, angle, pixels] = [0, 0, 0];
    for (let pixel = 0; pixel < SIDE * SIDE; pixel++) {
      if (!(a.numbers[pixel]! > 0 && b.numbers[pixel]! > 0)) continue;
      pixels++;
      depth += Math.abs(a.depths[pixel]! - b.depths[pixel]!);
      const cosine = [0, 1, 2].reduce((sum, axis) => sum + a.normals[pixel * 3 + axis]! * b.normals[pixel * 3 + axis]!, 0);
      angle += Math.acos(Math.min(Math.max(cosine, -1), 1));
    }
    return { depth: depth / pixels, angle: angle / pixels, pixels };
  }

  const SHAPES: Record<string, readonly [formula: string, mesh: SetMesh]> = {
    sphere: [plain('sphereField(p, 1.0)'), newMesh('sphere', { radius: 1, segments: 256, rings: 128 })],
    box: [plain('boxField(p, vec3(1.5), 0.0)'), { ...newMesh('cube', { size: 1.5 }), smooth: false }],
    torus: [plain('torusField(p, 0.9, 0.6)'), newMesh('torus', { radius: 0.9, tube: 0.3, segments: 256, sides: 128 })],
    'rounded box': [
      plain('boxField(p, vec3(1.5, 1.0, 1.2), 0.2)'),
      newMesh('roundedBox', { width: 1.5, height: 1, depth: 1.2, radius: 0.2, segments: 24 }),
    ],
  };
  const PLACED = { position: [0.2, -0.1, 0.3], turn: [0.4, 0.7, -0.2], scale: [1, 1, 1] };

  for (const [name, [formula, mesh]] of Object.entries(SHAPES)) {
    it(`a traced ${name} is where the mesh is, to a pixel, and faces where it faces, also moved and turned`, async () => {
      for (const placing of [mesh.placing, PLACED]) {
        const [traced, drawn] = [await seen(setOf({ a: field(formula, { placing }) })), await seen(setOf({ a: { ...mesh, placing } }))];
        expect(traced.numbers.filter((each) => each > 0).length).toBeGreaterThan(400);
        expect([apart(traced, drawn), apart(drawn, traced)]).toEqual([0, 0]);
        const { depth, angle } = differences(traced, drawn);
        expect(depth).toBeLessThan(0.02);
        expect(angle).toBeLessThan(0.06);
      }
    });
  }

  it('keep their shape where they are scaled unevenly and mirrored, and without perspective', async () => {
    const placing = { position: [0, 0, 0], turn: [0, 0.5, 0], scale: [-1.4, 0.8, 1] };
    const view = { ...camera, orthographic: true };
    const traced = await seen(setOf({ a: field(SHAPES['box']![0], { placing }) }), view);
    const drawn = await seen(setOf({ a: { ...SHAPES['box']![1], placing } }), view);
    expect([apart(traced, drawn), apart(drawn, traced)]).toEqual([0, 0]);
    expect(differences(traced, drawn).angle).toBeLessThan(0.05);
  });

  it('meet meshes where they cross, and copies of themselves', async () => {
    const sphere = newMesh('sphere', { radius: 0.8, segments: 128, rings: 64 }, { order: 1 });
    const beside = { position: [0.7, 0.2, 0.5], turn: [0, 0, 0], scale: [1, 1, 1] };
    const one = await seen(setOf({ a: field(plain('sphereField(p, 1.0)')), b: { ...sphere, placing: beside } }));
    const mesh = newMesh('sphere', { radius: 1, segments: 256, rings: 128 });
    const two = await seen(setOf({ a: mesh, b: { ...sphere, placing: beside } }));
    const numbers = (record: Seen): number[] => [0, 1, 2].map((number) => record.numbers.filter((each) => each === number).length);
    numbers(two).forEach((count, number) => expect(Math.abs(numbers(one)[number]! - count)).toBeLessThan(count * 0.05 + 12));
    const copies = { columns: 2, rows: 2, spacing: 1.9 };
    const traced = await seen(setOf({ a: field(plain('sphereField(p, 0.6)'), { copies }) }));
    const drawn = await seen(setOf({ a: { ...newMesh('sphere', { radius: 0.6, segments: 128, rings: 64 }), copies } }));
    expect([apart(traced, drawn), apart(drawn, traced)]).toEqual([0, 0]);
  });

  it('are seen from inside, as walls that face the eye', async () => {
    const inside = { ...camera, target: [0, 0, 0], distance: 0.2 };
    const record = await seen(setOf({ a: field(plain('-boxField(p, vec3(3.0), 0.0)')) }), inside);
    expect(record.numbers.every((each) => each === 1)).toBeTrue();
    const solid = await seen(setOf({ a: field(plain('boxField(p, vec3(3.0), 0.0)')) }), inside);
    expect(solid.numbers.every((each) => each === 1)).toBeTrue();
    expect(differences(record, solid).angle).toBeLessThan(0.02);
  });

  it('wear a material on each region, and what a mesh wears looks the same on them', async () => {
    const formula = `const int BODY = 1; // region Body
const int COLLAR = 2; // region Collar
float field(vec3 p, out int region) {
  float body = sphereField(p, 0.9);
  float collar = boxField(p, vec3(2.4, 0.3, 2.4), 0.0);
  region = collar < body ? COLLAR : BODY;
  return min(body, collar);
}`;
    const painted = (colour: string): Material => ({ ...newMaterial('c'), code: { text: `vec3 paint(Surface s) { return ${colour}; }` } });
    const others = { red: painted('vec3(1.0, 0.0, 0.0)'), green: painted('vec3(0.0, 1.0, 0.0)') };
    const partRules = {
      a: { order: 0, pattern: 'Body', material: 'red', values: {} },
      b: { order: 1, pattern: 'Collar', material: 'green', values: {} },
    };
    const scene = await standing(setOf({ a: field(formula) }, { partRules }), newRig('day'), others);
    const pixels = await renderer.measure({ items: scene.items(0), camera, rig: newRig('day'), seconds: 0 }, size);
    const share = (test: (r: number, g: number, b: number) => boolean): number => {
      let found = 0;
      for (let at = 0; at < pixels.length; at += 4) if (test(pixels[at]!, pixels[at + 1]!, pixels[at + 2]!)) found++;
      return found;
    };
    expect(share((r, g, b) => r > 0.99 && g < 0.01 && b < 0.01)).toBeGreaterThan(300);
    expect(share((r, g, b) => g > 0.99 && r < 0.01 && b < 0.01)).toBeGreaterThan(600);
    expect(scene.pick({ origin: [0, 0, 5], direction: [0, 0.12, -1] })).toEqual({ mesh: 'a', part: 'Body', copy: 0 });
    expect(scene.pick({ origin: [0, 0, 5], direction: [0, 0, -1] })).toEqual({ mesh: 'a', part: 'Collar', copy: 0 });
    scene.destroy();
    const lit = async (set: StageSet): Promise<Float32Array> => {
      const shown = await standing(set);
      const picture = await renderer.measure({ items: shown.items(0), camera, rig: newRig('day'), seconds: 0 }, size);
      shown.destroy();
      return picture;
    };
    const [traced, drawn] = [await lit(setOf({ a: field(SHAPES['sphere']![0]) })), await lit(setOf({ a: SHAPES['sphere']![1] }))];
    const different = traced.filter((each, index) => Math.abs(each - drawn[index]!) > 0.02).length / traced.length;
    expect(different).toBeLessThan(0.03);
  });

  it('throw the shadow that the mesh throws, and stand in its shadow', async () => {
    const rig: LightRig = {
      ...newRig('sun'),
      sun: newLight('sun', { direction: [0.6, 1, 0.3], casts: true }),
      ambient: newLight('ambient', { on: false }),
    };
    const floor = { shown: true, height: -1, size: 12, look: 'solid' as const };
    const lampshade = newMesh(
      'plane',
      { width: 1, height: 1 },
      { order: 1, placing: { position: [0.5, 1.5, 0], turn: [-1.5, 0, 0], scale: [1, 1, 1] } },
    );
    const shadow = async (mesh: SetMesh): Promise<Float32Array> => {
      const scene = await standing(setOf({ a: mesh, b: lampshade }, { floor }), rig);
      const picture = { items: scene.items(0), camera: { ...camera, distance: 7 }, rig, seconds: 0, casters: scene.casters(0) };
      const found = await renderer.measure({ ...picture, inspection: { ...WHOLE_PICTURE, view: 'shadow' } }, size);
      scene.destroy();
      return found;
    };
    const [traced, drawn] = [await shadow(field(SHAPES['sphere']![0])), await shadow(SHAPES['sphere']![1])];
    expect(drawn.filter((each, index) => index % 4 === 0 && each < 0.1).length).toBeGreaterThan(300);
    const different = traced.filter((each, index) => index % 4 === 0 && Math.abs(each - drawn[index]!) > 0.2).length;
    expect(different).toBeLessThan(SIDE * SIDE * 0.02);
  });

  /** Scene-linear colours of a special view, by pixel. */
  async function viewed(set: StageSet, inspection: Partial<Inspection>): Promise<(x: number, y: number) => number[]> {
    const scene = await standing(set);
    const picture = { items: scene.items(0), camera, rig: newRig('day'), seconds: 0, inspection: { ...WHOLE_PICTURE, ...inspection } };
    const pixels = await renderer.measure(picture, size);
    scene.destroy();
    return (x, y) => [...pixels.slice((y * SIDE + x) * 4, (y * SIDE + x) * 4 + 3)];
  }

  const MIDDLE = SIDE / 2;
  const lightness = ([red = 0, green = 0, blue = 0]: number[]): number => 0.2126 * red + 0.7152 * green + 0.0722 * blue;

  it('show how many steps they take: more along the silhouette, where they are called steep, and by a shorter scale', async () => {
    const ball = setOf({ a: field(plain('sphereField(p, 1.0)')) });
    const at = await viewed(ball, { view: 'steps' });
    // The ball's silhouette is a third of the picture from its middle; a little beyond, lines of sight pass by it.
    const row = Array.from({ length: MIDDLE }, (_, x) => lightness(at(x + MIDDLE, MIDDLE)));
    const dearest = row.indexOf(Math.max(...row));
    expect(dearest).toBeGreaterThan(SIDE / 4);
    expect(row[dearest]).toBeGreaterThan(row[0]! * 1.5);
    const steep = await viewed(setOf({ a: field(plain('sphereField(p, 1.0)'), { numbers: { slope: 6 } }) }), { view: 'steps' });
    expect(lightness(steep(MIDDLE, MIDDLE))).toBeGreaterThan(row[0]! * 1.5);
    const short = await viewed(ball, { view: 'steps', mostSteps: 8 });
    expect(lightness(short(MIDDLE, MIDDLE))).toBeGreaterThan(row[0]! * 1.5);
  });

  it('are hidden by what stands before them when their steps are seen, and meshes are grey', async () => {
    const plate = newMesh('cube', { size: 0.8 }, { order: 1 });
    const at = await viewed(setOf({ a: field(plain('sphereField(p, 0.3)')), b: plate }), { view: 'steps' });
    const [red = 0, green = 0, blue = 0] = at(MIDDLE, MIDDLE);
    expect(green).toBeGreaterThan(0.02);
    expect(Math.max(Math.abs(red - green), Math.abs(blue - green))).toBeLessThan(0.01);
  });

  it('show each region in a colour of its own', async () => {
    const formula = `const int LEFT = 1; // region Left
const int RIGHT = 2; // region Right
float field(vec3 p, out int region) { region = p.y < 0.0 ? LEFT : RIGHT; return sphereField(p, 1.0); }`;
    const at = await viewed(setOf({ a: field(formula) }), { view: 'parts' });
    const [above, below] = [at(MIDDLE, MIDDLE - 12), at(MIDDLE, MIDDLE + 20)];
    const hue = (colour: number[]): number[] => colour.map((each) => each / Math.max(...colour));
    const apartBy = Math.max(...hue(above).map((each, channel) => Math.abs(each - hue(below)[channel]!)));
    expect(apartBy).toBeGreaterThan(0.3);
  });

  it('that are nowhere, everywhere, no number, too steep or too far leave the picture as it is', async () => {
    const ball = newMesh('sphere', { radius: 0.5, segments: 64, rings: 32 }, { order: 1 });
    const alone = (await seen(setOf({ b: ball }))).numbers.filter((each) => each > 0).length;
    const beside = async (formula: string, numbers: Record<string, number> = {}): Promise<[ball: number, field: number]> => {
      const { numbers: found } = await seen(setOf({ a: field(formula, { numbers }), b: ball }));
      return [found.filter((each) => each === 2).length, found.filter((each) => each === 1).length];
    };
    for (const nothing of ['3.0', 'sqrt(-1.0 - p.x * p.x)'])
      expect(await beside(plain(nothing)))
        .withContext(nothing)
        .toEqual([alone, 0]);
    // A slope of 100 takes steps a hundredth as long, and arrives.
    const [, steep] = await beside(plain('100.0 * sphereField(p, 1.0)'), { steps: 512 });
    const [, exact] = await beside(plain('sphereField(p, 1.0)'));
    expect(Math.abs(steep - exact)).toBeLessThan(exact * 0.02);
    const [, repeated] = await beside(plain('sphereField(repeatedSpace(p, vec3(0.0), vec3(0.0)).position, 1.0)'));
    expect(repeated).toBe(exact);
    const [, far] = await beside(plain('sphereField(p, 1.0)'), { width: 1e9, height: 1e9, depth: 1e9 });
    expect(Math.abs(far - exact)).toBeLessThan(exact * 0.02);
  });

  it('may be whole halls: each region is seen where it stands', async () => {
    const numbers = { width: 6.2, height: 9, depth: 11.2 };
    const inside = { ...camera, target: [0, 1.4, 0], distance: 6.5, azimuth: 0.35, elevation: 0.12 };
    const { store } = demoSet('set-net-store').meshes;
    const { numbers: found, depths } = await seen(setOf({ a: field(store?.formula ?? '', { numbers }) }), inside);
    const count = (part: number): number => found.filter((each) => each === part).length;
    // Arches, boards, racks, floats, roof; and the dusk between them.
    for (const part of [1, 2, 3, 4, 5, 0])
      expect(count(part))
        .withContext(`region ${part}`)
        .toBeGreaterThan(SIDE / 4);
    // The float that wobbles hangs in the middle of the picture and of the hall.
    const middle = (SIDE / 2 + 6) * SIDE + SIDE / 2;
    expect(found[middle]).toBe(4);
    expect(depths[middle]).toBeGreaterThan(5.5);
    expect(depths[middle]).toBeLessThan(6.5);
  });

  it('that never end come to an end', async () => {
    const endless = 'float field(vec3 p) { float a = 0.0; while (a < 1.0) { a -= 1e-9 * p.x; } return a; }';
    const record = await seen(setOf({ a: field(endless, { numbers: { steps: 8, width: 1, height: 1, depth: 1 } }) }));
    expect(record.numbers.length).toBe(SIDE * SIDE);
  });
});
