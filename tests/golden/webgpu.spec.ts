import { openStudio, pictureDifference, type Studio } from '@brelvin/core';
import { openNodeDevice } from '@brelvin/devices/node';
import { drawDemosInTurn, RIGS, SIDE } from './draw-demos';
import { kept } from './sheet';

/** Of 255, as for the device that the pictures were kept from. */
const MEAN = 0.5;
const SHARE = 0.02;

/** The kept pictures come from WebGL2 in a page; another device, another target and another host draw the same. */
describe('The demos in Node, on WebGPU', () => {
  let studio: Studio;

  beforeAll(async () => {
    studio = openStudio(await openNodeDevice());
  });

  afterAll(() => studio?.device.destroy());

  it('look as they do in a page, under each light rig in turn', async () => {
    const now = await drawDemosInTurn(studio, RIGS, SIDE);
    const then = kept();
    expect(now.length).toBeGreaterThan(15);
    now.forEach(({ demo, rig, pixels }, row) => {
      const { mean, share } = pictureDifference(pixels, then[row * RIGS.length + (row % RIGS.length)] ?? new Uint8Array());
      expect(mean).withContext(`${demo} under ${rig}`).toBeLessThan(MEAN);
      expect(share).withContext(`${demo} under ${rig}`).toBeLessThan(SHARE);
    });
  }, 400_000);
});
