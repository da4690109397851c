import type { LightRig } from '@brelvin/contract';
import {
  compileFor,
  type FrameRenderer,
  newLight,
  newMaterial,
  newRig,
  newSet,
  StageScene,
  START_CAMERA,
  type Device,
  type Picture,
} from '@brelvin/core';
import { bring, withRenderer } from './testing/with-renderer';

const SIDE = 128;
const size = { width: SIDE, height: SIDE };

describe('Passes of a picture', () => {
  let device: Device;
  let renderer: FrameRenderer;

  withRenderer(SIDE, (open) => ({ device, renderer } = open));

  const rig: LightRig = {
    ...newRig('sun'),
    sun: newLight('sun', { direction: [1, -2, -1], casts: true }),
    bloom: { ...newRig('sun').bloom, strength: 0.5 },
  };

  async function picture(): Promise<Picture> {
    const scene = new StageScene(device, renderer);
    scene.setBench('m');
    scene.show(newSet('s'));
    const material = newMaterial('m');
    const { compiled } = compileFor(device.target, material, undefined, { variants: ['shadowed'] });
    scene.assign('m', { material, surface: await bring(device, compiled!) });
    // What casts is drawn each time: nothing says that it stands still.
    const { ball } = scene.casters(0);
    return { items: scene.items(0), camera: START_CAMERA, rig, seconds: 0, casters: { ball } };
  }

  it('are timed by what they are for, in the order in which they are drawn', async () => {
    const shown = await picture();
    const target = device.createTexture({ ...size, format: 'rgba8unorm', samples: 1 });
    const draw = (): void => renderer.draw(shown, { size, samples: 4, target, targetSize: size });
    const { passes } = await device.timePasses(draw);
    expect(passes.map(({ label }) => label)).toEqual(['shadows', 'surfaces', 'samples averaged', 'bloom', 'view transform']);
    expect(passes.every(({ milliseconds }) => milliseconds >= 0)).toBeTrue();
    expect(passes.reduce((sum, { milliseconds }) => sum + milliseconds, 0)).toBeGreaterThan(0);
    target.destroy();
  });

  it('are drawn as before when they were timed', async () => {
    const shown = await picture();
    const target = device.createTexture({ ...size, format: 'rgba8unorm', samples: 1 });
    const draw = (): void => renderer.draw(shown, { size, samples: 4, target, targetSize: size });
    draw();
    const before = await device.readPixels(target);
    await device.timePasses(draw);
    draw();
    expect(await device.readPixels(target)).toEqual(before);
    target.destroy();
  });

  it('leave the device as it was where drawing fails', async () => {
    const fails = (): void => {
      throw new RangeError('no picture');
    };
    await expectAsync(device.timePasses(fails)).toBeRejectedWithError(RangeError, 'no picture');
    const shown = await picture();
    const target = device.createTexture({ ...size, format: 'rgba8unorm', samples: 1 });
    renderer.draw(shown, { size, samples: 4, target, targetSize: size });
    expect((await device.readPixels(target)).some((each) => each > 0 && each < 255)).toBeTrue();
    target.destroy();
  });
});
