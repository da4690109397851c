import { pictureDifference } from '@brelvin/core';
import { drawnNow, kept } from '../../golden/sheet';
import { BOTH_DEVICES, DEVICE_WORDS } from '../support/on-both-devices';

/** Of 255; another driver rounds differently, another formula is farther off. */
const MEAN = 0.5;
/** Part of the pixels that may differ at all: edges. */
const SHARE = 0.02;

describe('The demos', () => {
  for (const device of BOTH_DEVICES)
    it(`look as they did when they were last looked at, each under three light rigs, drawn with ${DEVICE_WORDS[device]}`, async () => {
      const { target, pictures: now } = await drawnNow(device);
      const then = kept();
      expect(target).toBe(device === 'webgpu' ? 'wgsl' : 'glsl');
      expect(now.length).toBe(then.length);
      expect(now.length).toBeGreaterThan(15);
      now.forEach(({ name, pixels }, index) => {
        const { mean, share } = pictureDifference(pixels, then[index] ?? new Uint8Array());
        expect(mean).withContext(name).toBeLessThan(MEAN);
        expect(share).withContext(name).toBeLessThan(SHARE);
      });
      // Each under another rig is another picture: the sheet is no row of one.
      for (let index = 0; index < now.length; index += 3)
        expect(pictureDifference(now[index]!.pixels, now[index + 1]!.pixels).mean)
          .withContext(now[index]!.name)
          .toBeGreaterThan(2);
    }, 400_000);
});
