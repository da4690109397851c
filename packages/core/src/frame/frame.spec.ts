import type { MeshShape, RigLight } from '@brelvin/contract';
import { START_CAMERA } from '../scene/camera';
import { newRig } from '../document/new-documents';
import { newLight } from '../document/new-lights';
import { buildMesh } from '../mesh/build-mesh';
import { RecordingDevice } from '../testing/recording-device';
import { bodyRows } from './lamp-bodies';
import { FrameRenderer } from './frame-renderer';
import { UniformBuffer } from './uniform-buffer';
import { frameGlobals, libraryBlock, objectGlobals, writeBlock } from './uniforms';

const size = { width: 100, height: 80 };
const drawing = { size, samples: 4 as const, target: 'canvas' as const, targetSize: size };

describe('FrameRenderer, pass by pass', () => {
  async function draw(shape: MeshShape): Promise<{ device: RecordingDevice; renderer: FrameRenderer }> {
    const device = new RecordingDevice();
    const renderer = new FrameRenderer(device);
    // What a renderer makes once, before its first picture, is not looked at here.
    device.passes.length = device.textures.length = 0;
    const mesh = renderer.uploadMesh(buildMesh({ shape, numbers: {}, smooth: true }));
    renderer.draw({ items: [{ mesh }], camera: START_CAMERA, rig: newRig('r'), seconds: 0 }, drawing);
    return { device, renderer };
  }

  it('draws meshes into antialiased linear colour, then the view transform, then bright edges onto the canvas', async () => {
    const { device } = await draw('sphere');
    expect(device.textures.map(({ format, samples }) => `${format} ${samples}`)).toEqual([
      'rgba16float 4',
      'depth24plus 4',
      'rgba16float 1',
      'rgba8unorm 1',
    ]);
    const [scene, view, edges] = device.passes;
    expect(scene?.clear).toEqual([0.05, 0.05, 0.05, 1]);
    expect(scene?.draws[0]?.instances).toBe(1);
    expect(view?.draws[0]?.pipeline.descriptor.program.label).toBe('plain_view');
    expect(edges?.colour).toBe('canvas');
    expect(edges?.draws[0]?.bindings[1]?.textures).toContain(view?.colour);
    expect(edges?.draws[0]?.count).toBe(3);
  });

  it('draws the bodies of lamps that shine as copies of one ball, and none otherwise', async () => {
    const device = new RecordingDevice();
    const renderer = new FrameRenderer(device);
    const lamp = (changes: Partial<RigLight>): RigLight => newLight('point', { body: 0.1, ...changes });
    const bodies = (lights: Record<string, RigLight>): number | undefined => {
      device.passes.length = 0;
      renderer.draw({ items: [], camera: START_CAMERA, rig: { ...newRig('r'), lights }, seconds: 0 }, drawing);
      return device.passes[0]?.draws.find(({ pipeline }) => pipeline.descriptor.program.label === 'lamp_body')?.instances;
    };
    expect(bodies({ a: lamp({}), b: lamp({ order: 1 }), c: lamp({ body: undefined, order: 2 }), d: lamp({ on: false }) })).toBe(2);
    expect(bodies({ c: lamp({ body: undefined }), s: newLight('sun', { body: 0.1 }) })).toBeUndefined();
    const rows = bodyRows({ ...newRig('r'), lights: { a: lamp({ position: [1, 2, 3] }) } }, 0);
    // The sun of the rig has number 0.
    expect([...rows].map((each) => Math.round(each * 1e6) / 1e6)).toEqual([0.1, 0, 0, 1, 0, 0.1, 0, 2, 0, 0, 0.1, 3, 1]);
  });

  it('compiles of the frame’s own programs only what a picture needs', async () => {
    const { device, renderer } = await draw('sphere');
    const first = [...device.programs];
    expect(first.length).toBeGreaterThan(1);
    expect(first.length).toBeLessThan(6);
    expect(first).not.toContain('bloom_down');
    const glowing = { ...newRig('r'), bloom: { strength: 1, from: 1 } };
    renderer.draw({ items: [], camera: START_CAMERA, rig: glowing, seconds: 0 }, drawing);
    expect(device.programs.slice(first.length).sort()).toEqual(['bloom_down', 'bloom_up', 'view_transform']);
  });

  it('puts what is drawn small, or without samples, onto the canvas at once', async () => {
    for (const change of [{ size: { width: 50, height: 40 } }, { samples: 1 as const }]) {
      const device = new RecordingDevice();
      const renderer = new FrameRenderer(device);
      device.passes.length = 0;
      renderer.draw({ items: [], camera: START_CAMERA, rig: newRig('r'), seconds: 0 }, { ...drawing, ...change });
      expect(device.passes.at(-1)?.draws[0]?.pipeline.descriptor.program.label).toBe('plain_view');
      expect(device.passes.at(-1)?.colour).toBe('canvas');
    }
  });

  it('leaves the backs of closed meshes out, and draws both sides of open ones', async () => {
    const cull = async (shape: MeshShape): Promise<string | undefined> =>
      (await draw(shape)).device.passes[0]?.draws[0]?.pipeline.descriptor.cull;
    expect(await cull('sphere')).toBe('back');
    expect(await cull('plane')).toBe('none');
  });

  it('keeps no more than a few sizes alive', async () => {
    const { device, renderer } = await draw('plane');
    const before = device.alive;
    for (let step = 0; step < 50; step++) {
      const small = { width: 10 + step, height: 10 };
      renderer.draw({ items: [], camera: START_CAMERA, rig: newRig('r'), seconds: 0 }, { ...drawing, size: small });
    }
    expect(device.alive).toBeLessThanOrEqual(before + 5 * 3);
  });
});

describe('UniformBuffer', () => {
  it('uploads only what changed', () => {
    const device = new RecordingDevice();
    const buffer = new UniformBuffer(device, 4);
    buffer.upload();
    buffer.upload();
    expect(device.writes).toBe(1);
    buffer.words[2] = 5;
    buffer.upload();
    expect(device.writes).toBe(2);
  });
});

describe('Uniform blocks', () => {
  it('hold what the frame knows, where the layout says', () => {
    const layout = libraryBlock('Lights');
    const words = new Float32Array(layout.words);
    const rig = { ...newRig('r'), sun: newLight('sun', { direction: [0, 3, 0], colour: [1, 0.5, 0.25], intensity: 2 }) };
    writeBlock(layout, frameGlobals(START_CAMERA, rig, size, { seconds: 0 }), words);
    const at = (name: string): number => layout.members.get(name)?.offset ?? -1;
    expect([...words.slice(at('lightPlace'), at('lightPlace') + 3)]).toEqual([0, 1, 0]);
    expect([...words.slice(at('lightColour'), at('lightColour') + 3)]).toEqual([2, 1, 0.5]);
    expect(words[at('lightCount')]).toBe(1);
  });

  it('carry a mesh’s bounds, flat ones too', () => {
    expect(objectGlobals({ low: [-1, 0, 2], high: [1, 4, 2] }).get('placeScale')).toEqual([0.5, 0.25, 0, 0]);
  });

  it('say what is not known', () => {
    expect(() => writeBlock(libraryBlock('Object'), new Map(), new Float32Array(8))).toThrowError(RangeError, /Object\.placeOrigin/);
    expect(() => libraryBlock('Nothing')).toThrowError(RangeError);
  });
});
