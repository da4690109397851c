import type { Material, MaterialImage } from '@brelvin/contract';
import { compileFor, newMaterial, newRig, newSet, TARGETS, type EmittedMaterial, type TargetName } from '@brelvin/core';
import { WebGl2Device, WebGpuDevice } from '@brelvin/devices';
import { firstValueFrom, filter } from 'rxjs';
import { NO_LOADERS } from './stage-loaders';
import { StageEngine } from './stage-engine';
import type { StageState } from './stage-state';

function compiled(material: Material, target: TargetName = 'glsl'): EmittedMaterial {
  const result = compileFor(TARGETS[target], material).compiled;
  if (!result) throw new Error('does not compile');
  return result;
}

/** A material with a program of its own. */
function rimLit(name: string): Material {
  const material = newMaterial(name);
  return {
    ...material,
    surface: {
      ...material.surface,
      nodes: { rim: { kind: 'rim', rev: 1, x: 0, y: 0, values: {} } },
      ribbons: { 'dock.colour': { from: 'rim', outlet: 'result' } },
    },
  };
}

/** The engine on real canvases and real devices. */
describe('StageEngine', () => {
  let place: HTMLElement;
  let engine: StageEngine;

  beforeEach(() => {
    place = document.createElement('div');
    document.body.append(place);
    engine = new StageEngine(place);
    engine.setSize({ width: 96, height: 72 });
    engine.setBench('m');
    engine.setMaterial('m', newMaterial('m'));
    engine.setRig(newRig('r'));
    engine.setSet(newSet('s'));
  });

  afterEach(() => {
    engine.destroy();
    place.remove();
  });

  const canvas = (): HTMLCanvasElement => place.querySelector('canvas')!;

  const state = (wanted: (state: StageState) => boolean): Promise<StageState> => firstValueFrom(engine.state.pipe(filter(wanted)));

  it('draws small at first, sharp when it rests, and then no more', async () => {
    await engine.drawOn('webgl2');
    await engine.show('m', compiled(newMaterial('m')));
    const rested = await state(({ sharp, hasSurface }) => sharp && hasSurface);
    await new Promise((resolve) => setTimeout(resolve, 400));
    expect(engine.state.value.pictures).toBe(rested.pictures);
    expect([canvas().width, canvas().height]).toEqual([96, 72]);
  });

  it('takes another program into use only when it is ready, and compiles it once', async () => {
    await engine.drawOn('webgl2');
    await engine.show('m', compiled(newMaterial('m')));
    await state(({ sharp }) => sharp);
    const before = engine.state.value.compiledPrograms;
    const rim = rimLit('m');
    engine.setMaterial('m', rim);
    await engine.show('m', compiled(rim));
    await engine.show('m', compiled({ ...rim, name: 'other' }));
    await state(({ sharp, compiledPrograms }) => sharp && compiledPrograms > before);
    expect(engine.state.value.compiledPrograms).toBe(before + 1);
  });

  it('calls no picture sharp while its program is gauged', async () => {
    await engine.drawOn('webgl2');
    engine.setMaterial('beside', rimLit('beside'));
    await Promise.all([engine.show('m', compiled(newMaterial('m'))), engine.show('beside', compiled(rimLit('beside')))]);
    await state(({ sharp }) => sharp);
    const { finished } = WebGl2Device.prototype;
    // The gauge asks first; what the pictures ask after it is answered at once.
    let [asked, gauged] = [0, false];
    spyOn(WebGl2Device.prototype, 'finished').and.callFake(async function (this: WebGl2Device) {
      if (asked++ === 0) {
        await new Promise((resolve) => setTimeout(resolve, 1500));
        gauged = true;
      }
      return finished.call(this);
    });
    const before = engine.state.value.pictures;
    engine.setBench('beside');
    const rested = await state(({ sharp }) => sharp);
    expect(gauged).toBeTrue();
    expect(rested.pictures).toBeGreaterThan(before);
  });

  it('asks nothing of the device that is gone when another set comes while a program is tried', async () => {
    await engine.drawOn('webgl2');
    const { finished } = WebGl2Device.prototype;
    let swaps = 0;
    spyOn(WebGl2Device.prototype, 'finished').and.callFake(function (this: WebGl2Device) {
      if (swaps < 8) engine.setSet(newSet(`set ${++swaps}`, swaps % 2 === 0 ? 'sphere' : 'cube'));
      return finished.call(this);
    });
    await engine.show('m', compiled(newMaterial('m')));
    await state(({ sharp, hasSurface }) => sharp && hasSurface);
    expect(swaps).toBe(8);
    const gl = canvas().getContext('webgl2')!;
    expect(gl.getError()).toBe(gl.NO_ERROR);
  });

  it('keeps the picture and says so when the driver refuses a program', async () => {
    spyOn(console, 'error');
    await engine.drawOn('webgl2');
    await engine.show('m', compiled(newMaterial('m')));
    await state(({ sharp }) => sharp);
    const good = compiled(newMaterial('m'));
    const lines = good.program.fragment.lines.map((line, index) => (index > 10 ? { path: 'lambert' } : line));
    const broken: EmittedMaterial = {
      ...good,
      key: 'broken',
      program: {
        ...good.program,
        fragment: { text: good.program.fragment.text.replace('Lit lambert1 =', 'Lit lambert1 = nonsense +'), lines },
      },
    };
    await engine.show('m', broken);
    expect(engine.state.value.hasSurface).toBeTrue();
    expect(engine.state.value.refusal?.message).toContain('defect in Brelvin');
    expect(engine.state.value.refusal?.node).toBe('lambert');
    // Going back to what is on the Stage takes the words away again.
    await engine.show('m', good);
    expect(engine.state.value.refusal).toBeUndefined();
  });

  it('tells how much of a picture at rest is too bright to be shown', async () => {
    await engine.drawOn('webgl2');
    await engine.show('m', compiled(newMaterial('m')));
    await state(({ sharp }) => sharp);
    const at = async (exposure: number): Promise<number> => {
      engine.setRig({ ...newRig('r'), exposure });
      return (await state(({ sharp }) => sharp)).clipped ?? NaN;
    };
    expect(await at(-4)).toBe(0);
    // Background and all.
    expect(await at(6)).toBeGreaterThan(0.9);
  });

  it('moves the camera smoothly, and frames the mesh', async () => {
    await engine.drawOn('webgl2');
    await engine.show('m', compiled(newMaterial('m')));
    const cameras: number[] = [];
    engine.camera.changes.subscribe((camera) => cameras.push(camera.azimuth));
    engine.camera.orbitBy(1, 0);
    const start = cameras[0] ?? 0;
    await firstValueFrom(engine.camera.changes.pipe(filter((camera) => Math.abs(camera.azimuth - start - 1) < 1e-6)));
    expect(cameras.length).toBeGreaterThan(2);
    engine.camera.dollyBy(3);
    engine.frameMesh();
    await firstValueFrom(engine.camera.changes.pipe(filter((camera) => camera.distance < 6)));
  });

  it('makes a picture for the Library', async () => {
    expect(await engine.thumbnail()).toBeUndefined();
    await engine.drawOn('webgl2');
    await engine.show('m', compiled(newMaterial('m')));
    const picture = await engine.thumbnail();
    expect(picture?.type).toBe('image/png');
    expect(picture?.size).toBeGreaterThan(1000);
  });

  it('says why there is no picture when there is no device', async () => {
    spyOn(HTMLCanvasElement.prototype, 'getContext').and.returnValue(null);
    const without = new StageEngine(document.createElement('div'));
    without.setRig(newRig('r'));
    without.setSet(newSet('s'));
    await without.drawOn('webgpu');
    expect(without.state.value.unavailable).toContain('no WebGL2 context');
  });

  it('draws stills and thumbnails between its own pictures, one after the other, and goes on', async () => {
    await engine.drawOn('webgl2');
    await engine.show('m', compiled(newMaterial('m')));
    await state(({ sharp, complete }) => sharp && complete);
    engine.camera.orbitBy(0.4, 0);
    const pictures = await Promise.all([engine.still(), engine.thumbnail(), engine.still()]);
    expect(pictures.map((each) => each?.type)).toEqual(['image/png', 'image/png', 'image/png']);
    expect(await state(({ sharp }) => sharp)).toBeDefined();
    canvas().getContext('webgl2')!.getExtension('WEBGL_lose_context')!.loseContext();
    await state(({ lost }) => lost);
    expect(await engine.still())
      .withContext('without a context')
      .toBeUndefined();
  });

  it('comes back after the context was lost', async () => {
    await engine.drawOn('webgl2');
    await engine.show('m', compiled(newMaterial('m')));
    await state(({ sharp }) => sharp);
    const before = engine.state.value.pictures;
    const extension = canvas().getContext('webgl2')!.getExtension('WEBGL_lose_context')!;
    extension.loseContext();
    await state(({ lost }) => lost);
    // Only once the event of the loss has been dealt with may the context come back.
    await new Promise((resolve) => setTimeout(resolve, 50));
    extension.restoreContext();
    const back = await state(({ lost, hasSurface, sharp, compiledPrograms }) => !lost && hasSurface && sharp && compiledPrograms > 0);
    expect(back.pictures).toBeGreaterThan(before);
  });

  const whole = (): Promise<StageState> => state(({ sharp, complete, hasSurface }) => sharp && complete && hasSurface);
  /** Of the last picture. */
  async function redOf(): Promise<number> {
    const picture = await createImageBitmap((await engine.still())!);
    const context = new OffscreenCanvas(picture.width, picture.height).getContext('2d')!;
    context.drawImage(picture, 0, 0);
    return context.getImageData(48, 36, 1, 1).data[0] ?? -1;
  }

  it('goes over to another device and back, and shows the same', async () => {
    await engine.drawOn('webgpu');
    await engine.show('m', compiled(newMaterial('m'), 'wgsl'));
    await whole();
    engine.camera.orbitBy(0.4, 0.2);
    await whole();
    const [before, camera] = [await redOf(), engine.camera.now];
    await engine.drawOn('webgl2');
    expect(engine.state.value.device).toEqual({ name: 'webgl2', instead: undefined });
    expect(place.querySelectorAll('canvas').length).withContext('the last picture stays').toBe(2);
    // What was compiled for the device before comes late.
    await engine.show('m', compiled(newMaterial('m'), 'wgsl'));
    expect(engine.state.value.hasSurface).toBeFalse();
    await engine.show('m', compiled(newMaterial('m')));
    await whole();
    expect(place.querySelectorAll('canvas').length).toBe(1);
    expect(engine.camera.now).toEqual(camera);
    expect(Math.abs((await redOf()) - before)).toBeLessThanOrEqual(1);
    await engine.drawOn('webgpu');
    await engine.show('m', compiled(newMaterial('m'), 'wgsl'));
    await whole();
    expect(await redOf()).toBe(before);
    expect(before).toBeGreaterThan(20);
  });

  it('comes back after WebGPU was lost, and fails nothing that was asked for meanwhile', async () => {
    const devices: GPUDevice[] = [];
    const { requestDevice } = GPUAdapter.prototype;
    spyOn(GPUAdapter.prototype, 'requestDevice').and.callFake(async function (this: GPUAdapter, wish) {
      const device = await requestDevice.call(this, wish);
      devices.push(device);
      return device;
    });
    await engine.drawOn('webgpu');
    await engine.show('m', compiled(newMaterial('m'), 'wgsl'));
    await whole();
    const pictures = [engine.still(), engine.range({ outlet: { node: 'dock', outlet: 'colour' }, component: 0 }), engine.thumbnail()];
    const lost = state((each) => each.lost);
    devices.at(-1)?.destroy();
    await lost;
    expect((await Promise.all(pictures)).length).toBe(3);
    await state((each) => !each.lost);
    await whole();
    expect(devices.length).toBe(2);
    expect(await redOf()).toBeGreaterThan(20);
  });

  it('draws with WebGL2 where WebGPU cannot be had, and says why', async () => {
    spyOn(navigator.gpu, 'requestAdapter').and.resolveTo(null);
    await engine.drawOn('webgpu');
    const { device } = engine.state.value;
    expect(device).toEqual({ name: 'webgl2', instead: 'There is no graphics adapter for WebGPU. WebGL2 draws instead.' });
    await engine.show('m', compiled(newMaterial('m')));
    await whole();
    // Whoever chooses what draws already, or once more what cannot be had, keeps it as it is.
    const opened = spyOn(WebGl2Device, 'create').and.callThrough();
    await engine.drawOn('webgl2');
    expect(engine.state.value.device).toEqual({ name: 'webgl2', instead: undefined });
    await engine.drawOn('webgpu');
    expect(engine.state.value.device?.instead).toContain('no graphics adapter');
    expect(opened).not.toHaveBeenCalled();
    expect([engine.state.value.hasSurface, place.querySelectorAll('canvas').length]).toEqual([true, 1]);
  });

  it('opens no device again that goes before it has drawn', async () => {
    const { requestDevice } = GPUAdapter.prototype;
    const asked = spyOn(GPUAdapter.prototype, 'requestDevice').and.callFake(async function (this: GPUAdapter, wish) {
      const device = await requestDevice.call(this, wish);
      setTimeout(() => device.destroy(), 20);
      return device;
    });
    await engine.drawOn('webgpu');
    const { device } = await state((each) => each.device?.name === 'webgl2');
    expect(device?.instead).toBe('WebGPU was lost before it had drawn a picture. WebGL2 draws instead.');
    await engine.show('m', compiled(newMaterial('m')));
    await whole();
    expect(asked).toHaveBeenCalledTimes(1);
  });

  it('makes programs ready out of the way of what is drawn, on WebGPU', async () => {
    await engine.drawOn('webgpu');
    const made = spyOn(GPUDevice.prototype, 'createRenderPipelineAsync').and.callThrough();
    const ready = spyOn(WebGpuDevice.prototype, 'makeReady').and.callThrough();
    await engine.show('m', compiled(rimLit('m'), 'wgsl'));
    expect([ready.calls.count(), made.calls.count()]).toEqual([1, 1]);
    await whole();
  });

  it('dresses parts in several materials, finds them under the pointer, and says when the one on the Bench is on none', async () => {
    await engine.drawOn('webgl2');
    const red: Material = { ...newMaterial('red') };
    engine.setMaterial('red', red);
    await engine.show('m', compiled(newMaterial('m')));
    await engine.show('red', compiled(red));
    engine.setSet({ ...newSet('s'), partRules: { r: { order: 0, pattern: '*', material: 'red', values: {} } } });
    await state(({ benchIsWorn, sharp }) => !benchIsWorn && sharp);
    place.style.cssText = 'width: 96px; height: 72px';
    expect(engine.pick(48, 36)?.part).toBe('sphere');
    expect(engine.pick(1, 1)).toBeUndefined();
    expect(engine.materialOf({ mesh: 'mesh', part: 'sphere' })).toBe('red');
    engine.forget('red');
    engine.setSet(newSet('s'));
    await state(({ benchIsWorn, sharp }) => benchIsWorn && sharp);
  });

  it('brings a material back without a compile where its programs stayed, and compiles it anew where they went', async () => {
    await engine.drawOn('webgl2');
    engine.setMaterial('rim', rimLit('rim'));
    await Promise.all([engine.show('m', compiled(newMaterial('m'))), engine.show('rim', compiled(rimLit('rim')))]);
    const comesBack = async (): Promise<number> => {
      const before = engine.state.value.compiledPrograms;
      engine.setMaterial('rim', rimLit('rim'));
      await engine.show('rim', compiled(rimLit('rim')));
      return (await state(({ sharp }) => sharp)).compiledPrograms - before;
    };
    await state(({ sharp }) => sharp);
    engine.forget('rim', 'stay');
    expect(await comesBack()).toBe(0);
    engine.forget('rim');
    expect(await comesBack()).toBe(1);
  });

  it('asks for an image once, shows it when it comes, and moves with the pointer', async () => {
    const asked: string[] = [];
    let arrive: () => void = () => undefined;
    const arrival = new Promise<void>((resolve) => (arrive = resolve));
    const level = new Uint8Array(16).fill(255);
    const picture: MaterialImage = {
      name: 'p',
      asset: 'a'.repeat(64),
      width: 2,
      height: 2,
      role: 'colour',
      wrapX: 'clamp',
      wrapY: 'clamp',
      filter: 'smooth',
      uvSet: 0,
    };
    const other = new StageEngine(document.createElement('div'), {
      ...NO_LOADERS,
      image: async (image) => {
        asked.push(image.name);
        await arrival;
        return { width: 2, height: 2, levels: [level, level.slice(0, 4)] };
      },
    });
    other.setSize({ width: 64, height: 48 });
    const material: Material = {
      ...newMaterial('m'),
      images: { pic: picture },
      surface: {
        ...newMaterial('m').surface,
        nodes: { i: { kind: 'image', rev: 1, x: 0, y: 0, values: {}, image: 'pic' } },
        ribbons: { 'dock.colour': { from: 'i', outlet: 'colour' } },
      },
    };
    other.setBench('m');
    other.setMaterial('m', material);
    other.setRig(newRig('r'));
    other.setSet(newSet('s'));
    await other.drawOn('webgl2');
    await other.show('m', compiled(material));
    const { complete, awaits } = await firstValueFrom(other.state.pipe(filter(({ sharp }) => sharp && asked.length > 0)));
    expect(complete).withContext('while an image is on its way').toBeFalse();
    expect(awaits).toEqual(['image']);
    expect(await other.thumbnail())
      .withContext('a picture with a placeholder would stay in the Library')
      .toBeUndefined();
    arrive();
    await firstValueFrom(other.state.pipe(filter((each) => each.sharp && each.complete)));
    expect(await other.thumbnail()).toBeDefined();
    expect(asked).toEqual(['p']);
    other.pointAt({ x: 10, y: 10 });
    other.destroy();
  });

  describe('with a second picture', () => {
    const lit = (colour: number[]): Material => {
      const plain = newMaterial('m');
      const node = { kind: 'colour', rev: 1, x: 0, y: 0, values: { value: colour } };
      const ribbons = { 'dock.colour': { from: 'c', outlet: 'result' } };
      return { ...plain, surface: { ...plain.surface, nodes: { c: node }, ribbons } };
    };
    const red = lit([1, 0, 0]);
    const dark = { ...newRig('dark'), background: [0, 0, 0] };

    beforeEach(async () => {
      await engine.drawOn('webgl2');
      engine.setRig(dark);
      engine.setMaterial('m', red);
      await engine.show('m', compiled(red));
    });

    const compared = async (): Promise<NonNullable<StageState['compared']>> =>
      (await state((each) => each.sharp && each.compared?.difference !== undefined)).compared!;

    it('tells how far apart they are and what each costs', async () => {
      engine.setOther({ material: lit([0, 1, 0]), compiled: compiled(lit([0, 1, 0])), rig: dark });
      engine.setCompareView({ mode: 'wipe', split: 0.5, gain: 1 });
      const { costs, difference } = await compared();
      expect(costs.length).toBe(2);
      expect(Math.min(...costs)).toBeGreaterThan(0);
      expect(difference?.largest).toBe(255);
      expect(difference?.share).toBeGreaterThan(0.05);
      expect(difference?.share).toBeLessThan(0.9);
    });

    it('finds none between equal ones, also under another rig of the same light', async () => {
      engine.setOther({ material: red, compiled: compiled(red), rig: { ...dark, name: 'again' } });
      const { difference } = await compared();
      expect(difference).toEqual({ mean: 0, largest: 0, share: 0 });
    });

    it('draws one again when it is taken away, and survives a lost context', async () => {
      engine.setOther({ material: lit([0, 0, 1]), compiled: compiled(lit([0, 0, 1])), rig: dark });
      await compared();
      const context = canvas().getContext('webgl2')!.getExtension('WEBGL_lose_context')!;
      context.loseContext();
      await state(({ lost }) => lost);
      engine.camera.orbitBy(0.3, 0);
      await new Promise((resolve) => setTimeout(resolve, 50));
      context.restoreContext();
      await state(({ lost }) => !lost);
      expect((await compared()).difference?.largest).toBe(255);
      engine.setOther(undefined);
      await state((each) => each.sharp && each.compared === undefined);
    }, 20_000);
  });
});
