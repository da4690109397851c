import { Key } from 'selenium-webdriver';
import type { Bench } from '../support/bench';
import type { Browser } from '../support/browser';
import { withBench } from '../support/with-bench';

/** What draws: chosen, kept, lost, not to be had. */
describe('The device that draws', () => {
  const told = async (bench: Bench): Promise<string> => (await bench.text('.device-draws')).trim();
  const openMenu = (bench: Bench): Promise<void> => bench.press('view', 'brelvin-view-menu');
  const drawsWith = async (bench: Bench, name: string): Promise<void> => {
    await bench.driver.wait(async () => (await bench.stageAttribute('device')) === name, 60_000, `${name} never drew`);
    await bench.ready();
  };

  describe('in a browser that has WebGPU', () => {
    let bench: Bench;
    let browser: Browser;

    withBench((open) => ({ bench, browser } = open), { device: 'webgpu' });

    afterEach(async () => {
      expect(await browser.consoleErrors()).toEqual([]);
    });

    it('is WebGPU; another is chosen by keys, shows the same picture from the same place, and undo goes on', async () => {
      await bench.openMaterial('material-puppet-cheek');
      const at = await bench.middle(await bench.see('.stage-canvas'));
      await bench.drag(at, { x: at.x + 50, y: at.y + 20 });
      await bench.addNode('rim', await bench.ground(330, 330));
      await bench.expectCards(5);
      const before = await bench.stagePixels();
      await openMenu(bench);
      expect(await told(bench)).toBe('WebGPU draws.');
      await bench.click('[role=radio][data-choice=webgl2]');
      await drawsWith(bench, 'webgl2');
      expect(await told(bench)).toBe('WebGL2 draws.');
      await bench.keys(Key.ESCAPE);
      const after = await bench.stagePixels();
      expect(after.changedShare(before)).toBeLessThan(0.01);
      await bench.undo();
      await bench.expectCards(4);
      await bench.driver.navigate().refresh();
      await drawsWith(bench, 'webgl2');
    });

    it('is what the address asks for, whatever was chosen', async () => {
      await bench.openMaterial('material-puppet-cheek');
      const path = new URL(await bench.driver.getCurrentUrl()).pathname;
      const address = new URL(await bench.driver.getCurrentUrl()).origin;
      await bench.driver.get(`${address}${path}?device=webgpu`);
      await drawsWith(bench, 'webgpu');
      await bench.driver.get(`${address}${path}?device=webgl2`);
      await drawsWith(bench, 'webgl2');
    });

    it('comes back by itself after it was lost, also with what is compared and looked at', async () => {
      const stop = await browser.beforePages(`
        const { requestDevice } = GPUAdapter.prototype;
        window.devices = [];
        GPUAdapter.prototype.requestDevice = async function (...wish) {
          const device = await requestDevice.apply(this, wish);
          window.devices.push(device);
          return device;
        };`);
      await bench.openMaterial('material-puppet-cheek');
      await openMenu(bench);
      await bench.click('[role=radio][data-choice=webgpu]');
      await bench.keys(Key.ESCAPE);
      await drawsWith(bench, 'webgpu');
      await bench.choose('bands');
      await bench.keys(Key.F6);
      await bench.see('brelvin-peek-bar');
      const before = await bench.stagePixels();
      await bench.driver.executeScript('window.devices.at(-1).destroy()');
      await bench.driver.wait(
        async () => (await bench.driver.executeScript('return window.devices.length')) === 2,
        60_000,
        'another device was never opened',
      );
      await bench.ready();
      const after = await bench.stagePixels();
      expect(after.changedShare(before)).toBeLessThan(0.01);
      expect(await bench.stageAttribute('device')).toBe('webgpu');
      await stop();
    });

    it('is WebGL2 where WebGPU has no adapter, which is said where it is chosen', async () => {
      const stop = await browser.beforePages('navigator.gpu.requestAdapter = async () => null;');
      await bench.openMaterial('material-puppet-cheek');
      await drawsWith(bench, 'webgl2');
      await openMenu(bench);
      expect(await told(bench)).toBe('There is no graphics adapter for WebGPU. WebGL2 draws instead.');
      await stop();
    });
  });

  describe('in a browser without WebGPU', () => {
    let bench: Bench;
    let browser: Browser;

    withBench((open) => ({ bench, browser } = open));

    it('is WebGL2, whatever is wished', async () => {
      await browser.beforePages(`Object.defineProperty(Navigator.prototype, 'gpu', { get: () => undefined });`);
      await bench.openMaterial('material-puppet-cheek');
      await drawsWith(bench, 'webgl2');
      await openMenu(bench);
      const words = 'This browser has no WebGPU, or gives it only to pages that come by https. WebGL2 draws instead.';
      expect(await told(bench)).toBe(words);
    });
  });
});
