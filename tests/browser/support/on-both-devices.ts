import type { Bench } from './bench';
import type { BrowserDevice } from './browser';

/** Browsers that draw with WebGL2 alone, and with WebGPU: suites about pictures run in each. */
export const BOTH_DEVICES = ['webgl2', 'webgpu'] as const satisfies readonly BrowserDevice[];
export const DEVICE_WORDS: Readonly<Record<BrowserDevice, string>> = { webgl2: 'WebGL2', webgpu: 'WebGPU' };

/** The last spec of such a suite: without it both might have been the same. */
export function itDrewWith(device: BrowserDevice, bench: () => Bench): void {
  it(`the Stage drew with ${DEVICE_WORDS[device]}`, async () => {
    expect(await (await bench().see('.stage-canvas')).getAttribute('data-device')).toBe(device);
  });
}
