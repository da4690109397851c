import type { PartRule, StageSet } from '@brelvin/contract';
import { compileFor } from '../emit/emitted-material';
import { GLSL_TARGET } from '../emit/glsl/target';
import { newMaterial, newMesh, newSet } from '../document/new-documents';
import { FLOOR } from '../document/part-rules';
import { buildMesh } from '../mesh/build-mesh';
import type { MeshData } from '../mesh/mesh';
import { eyeDirection, framePoints, START_CAMERA, sightLine, type OrbitCamera } from '../scene/camera';
import { RecordingDevice } from '../testing/recording-device';
import { FrameRenderer } from './frame-renderer';
import { StageScene } from './stage-scene';
import { MaterialPipelines } from './material-pipelines';

const rule = (pattern: string, rest: Partial<PartRule> = {}): PartRule => ({ order: 0, pattern, values: {}, ...rest });

describe('StageScene', () => {
  let device: RecordingDevice;
  let renderer: FrameRenderer;
  let scene: StageScene;

  beforeEach(async () => {
    device = new RecordingDevice();
    renderer = new FrameRenderer(device);
    scene = new StageScene(device, renderer);
    scene.setBench('mine');
  });

  const rightmost = (): number => Math.max(...scene.outline().filter((_, index) => index % 3 === 0));
  const head = (rules: StageSet['partRules'] = {}): StageSet => ({ ...newSet('Head', 'puppetHead'), partRules: rules });

  it('dresses parts in the material on the Bench, unless a rule names another', () => {
    scene.show(head({ a: rule('hair', { material: 'hair' }) }));
    expect(scene.materialOf({ mesh: 'mesh', part: 'skin' })).toBe('mine');
    expect(scene.materialOf({ mesh: 'mesh', part: 'hair' })).toBe('hair');
    expect(scene.benchIsWorn).toBeTrue();
    scene.show(head({ a: rule('*', { material: 'hair' }) }));
    expect(scene.benchIsWorn).toBeFalse();
  });

  describe('with a mesh of a file', () => {
    const source = { asset: 'a'.repeat(64), file: 'kite.glb', parts: ['cube'], triangles: 12, made: [], gap: 1, mirrored: false };
    const bounds = { low: [0, 0, 0], high: [1, 1, 1] };
    const filed = (): StageSet => ({ ...newSet('Kite'), meshes: { kite: newMesh('imported', {}, { source: { ...source, bounds } }) } });

    it('has nothing until it came, then its parts', async () => {
      let come: (mesh: MeshData) => void = () => undefined;
      renderer.meshes.load = () => new Promise((resolve) => (come = resolve));
      const arrived = new Promise<void>((resolve) => (renderer.meshes.onArrival = resolve));
      scene.show(filed());
      expect(scene.items(0)).toEqual([]);
      expect(scene.awaitsMeshes).toBeTrue();
      come(buildMesh({ shape: 'cube', numbers: {}, smooth: false }));
      await arrived;
      scene.refresh();
      expect(scene.items(0).length).toBe(6);
      expect(scene.awaitsMeshes).toBeFalse();
      expect(scene.problems).toEqual([]);
    });

    it('says when its file cannot be had', async () => {
      renderer.meshes.load = async () => Promise.reject(new Error('It is gone.'));
      const told = new Promise<void>((resolve) => (renderer.meshes.onArrival = resolve));
      scene.show(filed());
      await told;
      scene.refresh();
      expect(scene.problems).toEqual([{ mesh: 'kite', message: '“kite.glb” cannot be had. It is gone.', file: true }]);
      expect(scene.awaitsMeshes).toBeFalse();
    });
  });

  it('draws parts in their order, with the sides that are wanted', () => {
    scene.show(head({ a: rule('eyes', { drawOrder: 5, faces: 'front' }), b: rule('skin', { faces: 'back' }) }));
    const items = scene.items(0);
    expect(items.length).toBe(4);
    expect(items.at(-1)?.part?.cull).toBe('back');
    expect(items[0]?.part?.cull).toBe('front');
    expect(items[1]?.part?.cull).toBe('none');
  });

  it('keeps meshes whose recipe stays, and gives everything back', () => {
    const set = newSet('s');
    scene.show(set);
    const buffers = scene.items(0)[0]?.mesh;
    const mesh = set.meshes['mesh']!;
    const moved: StageSet = { ...set, meshes: { mesh: { ...mesh, placing: { ...mesh.placing, position: [1, 0, 0] } } } };
    scene.show(moved);
    expect(scene.items(0)[0]?.mesh).toBe(buffers);
    expect(rightmost()).toBeCloseTo(2, 2);
    scene.show({ ...moved, meshes: { mesh: newMesh('cube') } });
    expect(scene.items(0)[0]?.mesh).not.toBe(buffers);
    const before = device.alive;
    scene.show({ ...set, meshes: {} });
    scene.destroy();
    expect(device.alive).toBeLessThan(before);
    expect(scene.items(0)).toEqual([]);
  });

  it('gives parts numbers of their own for the same material', async () => {
    const material = newMaterial('m');
    const { compiled } = compileFor(GLSL_TARGET, material);
    scene.assign('mine', { material, surface: await MaterialPipelines.create(device, compiled!) });
    scene.show(head({ a: rule('eyes', { values: { glow: 3 } }) }));
    const items = scene.items(0);
    expect(new Set(items.map((item) => item.part?.values)).size).toBe(items.length);
    expect(items[2]?.part?.live?.overrides as object).toEqual({ glow: 3 });
  });

  it('has a floor that wears a material of its own', () => {
    scene.show({ ...newSet('s'), floor: { shown: true, height: -2, size: 6 } });
    expect(scene.materialOf({ mesh: FLOOR, part: FLOOR })).toBe(FLOOR);
    expect(rightmost()).toBeCloseTo(1, 2);
    scene.show({ ...newSet('s'), floor: { shown: true, height: -2, size: 6 }, partRules: { f: rule('floor', { material: 'silk' }) } });
    expect(scene.materialOf({ mesh: FLOOR, part: FLOOR })).toBe('silk');
  });

  it('shows a material on the parts that wear it, from the side that they face', () => {
    const faces = ['front', 'back', 'left', 'right', 'top', 'bottom'];
    const wearing = (part: string): OrbitCamera => {
      const others = faces.filter((name) => name !== part).map((name) => [name, rule(name, { material: 'other' })] as const);
      scene.show({ ...newSet('s', 'cube'), partRules: Object.fromEntries(others) });
      expect(scene.portrait().distance).withContext(part).toBeLessThan(framePoints(START_CAMERA, scene.outline()).distance);
      return scene.portrait();
    };
    const towards = (part: string): number[] => eyeDirection(wearing(part)).map((each) => Math.round(each));
    expect(towards('front')).toEqual([0, 0, 1]);
    expect(towards('back')[2]).toBe(-1);
    expect(towards('left')[0]).toBe(-1);
    expect(towards('right')[0]).toBe(1);
    expect(towards('top')[1]).toBe(1);
    expect(towards('bottom')[1]).toBe(-1);
  });

  it('shows a material on something closed, or that nothing wears, as the Stage first does', () => {
    const { azimuth, elevation } = START_CAMERA;
    scene.show(newSet('s'));
    expect(scene.portrait()).toEqual(jasmine.objectContaining({ azimuth, elevation }));
    expect(scene.portrait().distance).toBeCloseTo(framePoints(START_CAMERA, scene.outline()).distance, 1);
    scene.show({ ...newSet('s'), partRules: { a: rule('*', { material: 'other' }) } });
    expect(scene.portrait()).toEqual(framePoints(START_CAMERA, scene.outline()));
  });

  it('finds the part that is seen, depth offsets included', () => {
    scene.show(head());
    const at = (x: number, y: number): string | undefined => scene.pick({ origin: [x, y, 9], direction: [0, 0, -1] })?.part;
    expect([at(0.3, 0), at(0, 0.6), at(0, -0.5), at(3, 0)]).toEqual(['eyes', 'hair', 'skin', undefined]);
    const fringe = Array.from({ length: 40 }, (_, step) => step * 0.01).find((y) => at(0.3, y) === 'hair') ?? 1;
    expect(fringe).toBeLessThan(0.2);
    scene.show(head({ a: rule('eyes', { depthOffset: 0.4 }) }));
    expect(at(0.3, fringe)).toBe('eyes');
    expect(scene.pick(sightLine({ ...START_CAMERA, azimuth: Math.PI, elevation: 0 }, 0.1, 0, 1))?.part).toBe('hair');
  });

  it('finds copies, and what is turned, scaled and mirrored', () => {
    const set = newSet('s', 'cube', { size: 1 });
    const mesh = {
      ...set.meshes['mesh']!,
      copies: { columns: 2, rows: 1, spacing: 3 },
      placing: { position: [0, 0, 0], turn: [0, 0, 0], scale: [-2, 1, 1] },
    };
    scene.show({ ...set, meshes: { mesh } });
    const ray = (x: number) => scene.pick({ origin: [x, 0, 9], direction: [0, 0, -1] });
    expect([ray(-1.5)?.copy, ray(1.5)?.copy, ray(0)?.copy]).toEqual([0, 1, undefined]);
    expect(ray(2.4)?.part).toBe('front');
    expect(scene.items(0)[0]?.part?.mirrored).toBeTrue();
    expect(scene.items(0)[0]?.part?.instanceCount).toBe(2);
  });

  it('says what is wrong with a formula, and keeps the mesh that was', () => {
    const set = newSet('s', 'height');
    scene.show(set);
    scene.show({ ...set, meshes: { mesh: { ...set.meshes['mesh']!, formula: 'sni(x)' } } });
    expect(scene.problems[0]?.message).toMatch(/Line 1, column 1: .*"sni"/);
    expect(scene.items(0).length).toBe(1);
  });

  it('knows whether the clock or the pointer moves anything', async () => {
    const set = newSet('s');
    scene.show(set);
    expect(scene.moves).toBeFalse();
    scene.show({ ...set, meshes: { mesh: { ...set.meshes['mesh']!, motion: { kind: 'spin', axis: 'y', speed: 1, angle: 0 } } } });
    expect(scene.moves).toBeTrue();
    const live = { kind: 'sine', low: 0, high: 1, period: 1, phase: 0, speed: 1 } as const;
    const material = {
      ...newMaterial('m'),
      parameters: { p: { name: 'P', type: 'number', value: 1, order: 0, live } as const },
      surface: {
        ...newMaterial('m').surface,
        nodes: { p: { kind: 'parameter', rev: 1, x: 0, y: 0, values: {}, parameter: 'p' } },
        ribbons: { 'dock.colour': { from: 'p', outlet: 'result' } },
      },
    };
    const { compiled } = compileFor(GLSL_TARGET, material);
    scene.assign('mine', { material, surface: await MaterialPipelines.create(device, compiled!) });
    scene.show(set);
    expect(scene.moves).toBeTrue();
    scene.point({ mesh: 'mesh', part: 'sphere' });
    scene.items(0)[0]?.part?.live?.pointer(1);
    expect(scene.pointing).toBeFalse();
    scene.point(undefined);
    expect(scene.pointing).toBeTrue();
    scene.advancePointer(2);
    expect(scene.pointing).toBeFalse();
  });
});
