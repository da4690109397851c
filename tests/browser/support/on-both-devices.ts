import type { Bench } from './bench';
import type { BrowserDevice } from './browser';

/** Browsers that draw with WebGL2 alone, and with WebGPU. */
export const BOTH_DEVICES = ['webgl2', 'webgpu'] as const satisfies readonly BrowserDevice[];
/**
 * Those in which suites about pictures run: in both by `npm test -- "all of webgpu"`, else with WebGPU, as all other suites draw
 * with WebGL2.
 */
export const PICTURE_DEVICES: readonly BrowserDevice[] = process.env['SPEC_DEVICES'] === 'both' ? BOTH_DEVICES : ['webgpu'];
export const DEVICE_WORDS: Readonly<Record<BrowserDevice, string>> = { webgl2: 'WebGL2', webgpu: 'WebGPU' };

/** The last spec of such a suite: without it both might have been the same. */
export function itDrewWith(device: BrowserDevice, bench: () => Bench): void {
  it(`the Stage drew with ${DEVICE_WORDS[device]}`, async () => {
    expect(await (await bench().see('.stage-canvas')).getAttribute('data-device')).toBe(device);
  });
}
