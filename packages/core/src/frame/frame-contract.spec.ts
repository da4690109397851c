import type { LightRig, Material, StageSet } from '@brelvin/contract';
import { DEMO_DOCUMENTS } from '../demo/demo-documents';
import { demoLibrary } from '../demo/demo-library';
import { kindOf } from '../document/documents';
import { newMaterial, newRig, newSet } from '../document/new-documents';
import { newLight } from '../document/new-lights';
import { compileFor } from '../emit/emitted-material';
import { GLSL_TARGET } from '../emit/glsl/target';
import { buildMesh } from '../mesh/build-mesh';
import { START_CAMERA } from '../scene/camera';
import { RecordingDevice, type RecordedPass } from '../testing/recording-device';
import { materialOf } from '../testing/graphs';
import { FrameRenderer } from './frame-renderer';
import { WHOLE_PICTURE, type Inspection } from './inspection';
import type { Picture } from './picture';
import { StageScene } from './stage-scene';
import { MaterialPipelines } from './material-pipelines';

const size = { width: 64, height: 48 };
const drawing = { size, samples: 4 as const, target: 'canvas' as const, targetSize: size };
/** Everything a rig can ask for. */
const rich: LightRig = {
  ...newRig('rich'),
  sun: newLight('sun', { casts: true }),
  occlusion: { radius: 0.5, strength: 1 },
  bloom: { strength: 0.2, from: 1 },
};

const MATERIALS = DEMO_DOCUMENTS.filter(({ document }) => kindOf(document) === 'material') as readonly {
  readonly id: string;
  readonly document: Material;
}[];

/** The recording device refuses what WebGPU would refuse: a picture that comes about is one that keeps the contract. */
describe('The contract between frame and device', () => {
  let device: RecordingDevice;
  let renderer: FrameRenderer;

  beforeEach(async () => {
    device = new RecordingDevice();
    renderer = new FrameRenderer(device);
  });

  async function surfaceOf(material: Material): Promise<MaterialPipelines> {
    const { compiled, problems } = compileFor(GLSL_TARGET, material, demoLibrary(), { variants: ['shadowed', 'occluded', 'inspect'] });
    if (!compiled) throw new Error(problems.map(({ message }) => message).join());
    return MaterialPipelines.create(device, compiled);
  }

  async function standing(set: StageSet, material: Material): Promise<StageScene> {
    const scene = new StageScene(device, renderer);
    scene.setBench('mine');
    scene.show(set);
    scene.assign('mine', { material, surface: await surfaceOf(material) });
    return scene;
  }

  const pictureOf = (scene: StageScene, more: Partial<Picture> = {}): Picture => ({
    items: scene.items(0),
    camera: START_CAMERA,
    rig: rich,
    seconds: 0,
    casters: scene.casters(0),
    ...more,
  });
  const labels = (passes: readonly RecordedPass[]): string[] =>
    passes.map(({ draws }) => draws.map(({ pipeline }) => pipeline.descriptor.program.label.split(' ')[0]).join(' '));

  for (const { id, document } of MATERIALS) {
    it(`is kept by ${id}, however it is looked at`, async () => {
      const scene = await standing(newSet('Ball', 'sphere'), document);
      const seen: Partial<Inspection>[] = [{}, { surface: 'light' }, { view: 'occlusion' }, { view: 'wires' }, { view: 'wiresOver' }];
      for (const inspection of seen) {
        const before = device.passes.length;
        renderer.draw(pictureOf(scene, { inspection: { ...WHOLE_PICTURE, ...inspection } }), drawing);
        expect(device.passes.length).toBeGreaterThan(before + 1);
        expect(device.passes.at(-1)?.colour).toBe('canvas');
      }
    });
  }

  it('writes, binds and makes nothing for a picture that is as the one before', async () => {
    const scene = await standing(newSet('Puppet', 'puppetHead'), newMaterial('plain'));
    const counts = (): readonly number[] => [device.writes, device.groups, device.pipelines.length, device.textures.length];
    renderer.draw(pictureOf(scene), drawing);
    const first = device.passes.length;
    const after = counts();
    renderer.draw(pictureOf(scene), drawing);
    expect(counts()).toEqual(after);
    // The shadow atlas alone is kept: two passes of its own.
    expect(device.passes.length - first).toBeGreaterThan(4);
    expect(labels(device.passes.slice(first)).join(' ')).not.toContain('shadow ');
  });

  it('writes only what changed: the camera’s block, or a material’s', async () => {
    const material = materialOf({ a: ['lambert', { colour: [0.5, 0.5, 0.5] }] }, { 'dock.colour': 'a' });
    const scene = await standing(newSet('Puppet', 'puppetHead'), material);
    renderer.draw(pictureOf(scene, { rig: newRig('plain') }), drawing);
    let before = device.writes;
    renderer.draw(pictureOf(scene, { rig: newRig('plain'), camera: { ...START_CAMERA, azimuth: 1 } }), drawing);
    expect(device.writes - before).toBe(1);
    before = device.writes;
    const other = materialOf({ a: ['lambert', { colour: [0.9, 0.5, 0.5] }] }, { 'dock.colour': 'a' });
    scene.assign('mine', { material: other, surface: await surfaceOf(other) });
    const items = scene.items(0).length;
    renderer.draw(pictureOf(scene, { rig: newRig('plain'), camera: { ...START_CAMERA, azimuth: 1 } }), drawing);
    // A new surface: one block for each of its parts, however many passes draw them.
    expect(device.writes - before).toBeLessThanOrEqual(items + 1);
  });

  it('lets every light’s square find that light’s view', async () => {
    const scene = await standing(newSet('Ball', 'sphere'), newMaterial('plain'));
    const lamp = newLight('spot', { casts: true, position: [3, 3, 0], direction: [0, -1, 0] });
    renderer.draw(pictureOf(scene, { rig: { ...rich, lamp } as LightRig }), drawing);
    const casters = device.passes.flatMap(({ found }) =>
      found.map((blocks) => blocks.get('Caster')).filter((words) => words !== undefined),
    );
    const views = new Set(casters.map((words) => [...words].join()));
    expect(casters.length).toBeGreaterThanOrEqual(1);
    expect(views.size).toBe(device.passes.filter(({ viewport, colour }) => viewport && !colour).length);
  });

  it('lets every small picture of an outlet find its own outlet', async () => {
    const material = newMaterial('plain');
    const mesh = renderer.uploadMesh(buildMesh({ shape: 'sphere', numbers: {}, smooth: true }));
    const surface = await surfaceOf(material);
    const cells = [0, 1, 2].map((outlet) => ({ outlet, mode: 'colour' as const }));
    await renderer.drawOutlets({ camera: START_CAMERA, rig: rich, seconds: 0 }, { mesh, surface, material }, cells, 16);
    // Drawn very small before, so that their programs are ready.
    const looked = device.passes
      .filter(({ viewport }) => viewport?.width === 16)
      .flatMap(({ found }) => found.map((blocks) => blocks.get('Peek')?.[0]));
    expect(looked).toEqual([0, 1, 2]);
  });
});
