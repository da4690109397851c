import type { GraphNode, LightRig, Material } from '@brelvin/contract';
import {
  ATLAS_COLUMNS,
  buildMesh,
  compileOutletsFor,
  DEMO_DOCUMENTS,
  type FrameRenderer,
  linearFromSrgb,
  newMaterial,
  newRig,
  newSet,
  resolveGraph,
  library,
  StageScene,
  START_CAMERA,
  type EmittedOutlets,
  type OutletAddress,
  type ProbedPoint,
  type Device,
} from '@brelvin/core';
import { bring, withRenderer } from './testing/with-renderer';

const SIDE = 64;
const size = { width: SIDE, height: SIDE };
const camera = { ...START_CAMERA, azimuth: 0.4, elevation: 0.3 };

/** Outlets looked at on a real device: on the mesh, in small, and at a point. */
describe('Outlets on a device', () => {
  let device: Device;
  let renderer: FrameRenderer;

  withRenderer(SIDE, (open) => ({ device, renderer } = open));

  const rig: LightRig = { ...newRig('test'), background: [0, 0, 0] };

  function allOutlets(material: Material): OutletAddress[] {
    return [...resolveGraph(material, library()).nodes.values()].flatMap(({ id, outlets }) =>
      Object.keys(outlets).map((outlet) => ({ node: id, outlet })),
    );
  }

  function compiledOutlets(material: Material, wanted = allOutlets(material)): EmittedOutlets {
    const found = compileOutletsFor(device.target, material, wanted);
    if (!('compiled' in found)) throw new Error(found.problems.map((each) => each.message).join());
    return found;
  }

  async function stand(material: Material, found: EmittedOutlets, set = newSet('s', 'sphere', { segments: 24, rings: 16 })) {
    const mesh = renderer.uploadMesh(buildMesh({ shape: 'sphere', numbers: {}, smooth: true }));
    const surface = await bring(device, found.compiled);
    const scene = new StageScene(device, renderer);
    scene.setBench('bench');
    scene.show(set);
    scene.assign('bench', { material });
    return { mesh, surface, scene, items: scene.items(0.7, surface) };
  }

  for (const { id, document } of DEMO_DOCUMENTS) {
    if (document.format !== 'brelvin-material' || document.code) continue;
    it(`${id}: values at twenty points are those of the pixels`, async () => {
      const found = compiledOutlets(document);
      const { surface, scene, items, mesh } = await stand(document, found);
      const picture = { items, camera, rig, seconds: 0.7 };
      const points = Array.from({ length: 20 }, (_, index) => ({ x: 14 + ((index * 17) % 36), y: 14 + ((index * 23) % 36) }));
      const indices = found.outlets.map((_, index) => index);
      const probed: (ProbedPoint | undefined)[] = [];
      for (const point of points) probed.push(await renderer.probe(picture, surface, indices, point, size));
      expect(probed.filter(Boolean).length).withContext('points on the surface').toBeGreaterThan(15);
      let worst = 0;
      let where = '';
      for (const outlet of indices) {
        const pixels = await renderer.measure(
          { ...picture, lens: { surface, outlet, mode: 'colour', low: 0, high: 1, component: 0 } },
          size,
        );
        points.forEach(({ x, y }, index) => {
          const values = probed[index]?.values[outlet];
          if (!values) return;
          for (const channel of [0, 1, 2]) {
            const seen = pixels[(y * SIDE + x) * 4 + channel] ?? NaN;
            const apart = Math.abs(seen - Math.min(Math.max(values[channel] ?? NaN, 0), 1));
            if (apart > worst) [worst, where] = [apart, `${found.outlets[outlet]?.node} at ${x}, ${y}`];
          }
        });
      }
      expect(worst)
        .withContext(where)
        .toBeLessThanOrEqual(1 / 255);
      scene.destroy();
      surface.destroy();
      mesh.destroy();
    }, 60_000);
  }

  const node = (kind: string, values: GraphNode['values'] = {}): GraphNode => ({ kind, rev: 1, x: 0, y: 0, values });
  const withNodes = (nodes: Record<string, GraphNode>, ribbons: Material['surface']['ribbons'] = {}): Material => ({
    ...newMaterial('m'),
    surface: { ...newMaterial('m').surface, nodes, ribbons },
  });

  it('says where a point is, and on which copy', async () => {
    const material = withNodes({ position: node('position'), copy: node('copyIndex') });
    const plain = newSet('row');
    const [mesh = ''] = Object.keys(plain.meshes);
    const row = {
      ...plain,
      meshes: { [mesh]: { ...plain.meshes[mesh]!, copies: { ...plain.meshes[mesh]!.copies, columns: 3, spacing: 2.2 } } },
    };
    const found = compiledOutlets(material);
    const { surface, items } = await stand(material, found, row);
    const picture = { items, camera: { ...camera, azimuth: 0, elevation: 0, distance: 12 }, rig, seconds: 0 };
    const left = await renderer.probe(picture, surface, [0, 1], { x: 18, y: 32 }, size);
    const right = await renderer.probe(picture, surface, [0, 1], { x: 46, y: 32 }, size);
    expect(await renderer.probe(picture, surface, [0, 1], { x: 2, y: 2 }, size)).toBeUndefined();
    expect([left?.copy, right?.copy].sort()).toEqual([0, 2]);
    for (const each of [left, right]) {
      expect(each?.values[1]?.[0]).toBe(each?.copy);
      each?.position.forEach((part, axis) => expect(each.values[0]?.[axis]).toBeCloseTo(part, 3));
    }
    expect((right?.position[0] ?? 0) - (left?.position[0] ?? 0)).toBeGreaterThan(2);
  });

  it('shows a number on a scale: hatched beyond its ends, checked where it is none', async () => {
    const material = withNodes({ place: node('place'), root: node('divide', { a: 0, b: 0 }), huge: node('exponential', { value: 1e9 }) });
    const found = compiledOutlets(material, [{ node: 'place', outlet: 'y' }]);
    const { surface, items } = await stand(material, found);
    const draw = (low: number, high: number): Promise<Float32Array> =>
      renderer.measure({ items, camera, rig, seconds: 0, lens: { surface, outlet: 0, mode: 'scale', low, high, component: 0 } }, size);
    const brightness = (pixels: Float32Array, x: number, y: number): number =>
      [0, 1, 2].reduce((sum, channel) => sum + (pixels[(y * SIDE + x) * 4 + channel] ?? 0), 0);
    const whole = await draw(0, 1);
    expect(brightness(whole, 32, 16)).toBeGreaterThan(brightness(whole, 32, 46) + 0.2);
    const beyond = await draw(5, 6);
    const row = new Set(Array.from({ length: 12 }, (_, index) => brightness(beyond, 26 + index, 32).toFixed(3)));
    expect(row.size).toBe(2);
  });

  it('draws sixty small pictures by a program for every four', async () => {
    const nodes = Object.fromEntries(
      Array.from({ length: 60 }, (_, index) => [`n${index}`, node('colour', { value: [index / 60, 0.5, 1 - index / 60] })]),
    );
    const material = withNodes(nodes);
    const found = compiledOutlets(material);
    expect(found.outlets.length).toBe(60);
    const before = device.statistics.compiledPrograms;
    const { surface, mesh } = await stand(material, found);
    expect(device.statistics.compiledPrograms - before).toBe(60 / 4);
    const cell = 16;
    const pixels = await renderer.drawOutlets(
      { camera, rig, seconds: 0 },
      { mesh, surface, material },
      found.outlets.map((_, outlet) => ({ outlet, mode: 'colour' })),
      cell,
    );
    const width = ATLAS_COLUMNS * cell;
    expect(pixels.length).toBe(width * 8 * cell * 4);
    found.outlets.forEach((_, index) => {
      const [x, y] = [(index % ATLAS_COLUMNS) * cell + cell / 2, Math.floor(index / ATLAS_COLUMNS) * cell + cell / 2];
      const at = (y * width + x) * 4;
      expect(Math.abs(linearFromSrgb((pixels[at] ?? 0) / 255) - index / 60)).toBeLessThan(0.01);
      expect(pixels[at + 3]).toBe(255);
    });
    expect(pixels[3]).withContext('empty beside the sphere').toBe(0);
  });

  it('moves vertices: a wave lifts them, normals follow, and the probe sees them there', async () => {
    const material = withNodes(
      { push: node('offsetAlongNormal', { amount: 0.5 }), position: node('position'), normal: node('normal') },
      { 'dock.offset': { from: 'push', outlet: 'result' } },
    );
    const found = compiledOutlets(material);
    const { surface, items } = await stand(material, found);
    const picture = { items, camera, rig, seconds: 0 };
    const index = (id: string): number => found.outlets.findIndex((each) => each.node === id);
    const at = await renderer.probe(picture, surface, [index('position'), index('normal')], { x: 32, y: 32 }, size);
    const [position = [], normal = []] = at?.values ?? [];
    const radius = Math.hypot(...position.slice(0, 3));
    const still = await stand(withNodes({ position: node('position') }), compiledOutlets(withNodes({ position: node('position') })));
    const before = await renderer.probe({ ...picture, items: still.items }, still.surface, [0], { x: 32, y: 32 }, size);
    expect(radius - Math.hypot(...(before?.values[0] ?? []).slice(0, 3))).toBeCloseTo(0.5, 1);
    for (const axis of [0, 1, 2]) expect((position[axis] ?? 0) / radius).toBeCloseTo(normal[axis] ?? NaN, 1);
  });
});
