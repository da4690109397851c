import type { Bench } from '../support/bench';
import type { Browser } from '../support/browser';
import { pngFile } from '../support/map-files';
import { withBench } from '../support/with-bench';

const COLOURS: Readonly<Record<string, readonly number[]>> = {
  px: [0.9, 0, 0],
  nx: [0, 0.9, 0.9],
  py: [0, 0.9, 0],
  ny: [0.9, 0, 0.9],
  pz: [0, 0, 0.9],
  nz: [0.9, 0.9, 0],
};

describe('Cube images', () => {
  let browser: Browser;
  let bench: Bench;

  withBench((open) => ({ browser, bench } = open));

  it('come of six files, are looked up by direction, seen on a sheet, and refused where they do not fit', async () => {
    await bench.openLibrary();
    await bench.press('New material');
    await bench.ready();
    const six = Object.entries(COLOURS).map(([side, colour]) => pngFile(`lamp_${side}.png`, () => colour));
    const surface = await bench.see('.graph-surface');
    await bench.dropFiles(surface, [...six.slice(1), pngFile('lamp_px.png', () => [1, 0, 0], 32, 64)], await bench.ground(120, 320));
    await bench.waitForText('.graph-refusal, .toast, [role="alert"], [role="status"]', /squares of one size/);
    await bench.dropFiles(surface, six, await bench.ground(120, 320));
    await bench.see('[data-kind="cubeImage"]');
    await bench.connect(await bench.outlet('cubeImage', 'colour'), await bench.dockInlet());
    await bench.driver.wait(
      async () => {
        const pixels = await bench.stagePixels();
        // From in front and a little above: the sphere shows +z in the middle, +x at its right, +y on top.
        const [red, green, blue] = pixels.at(pixels.width / 2, pixels.height / 2);
        return blue > 150 && red < 60 && green < 60;
      },
      60_000,
      'the middle of the sphere never showed +z',
    );
    const pixels = await bench.stagePixels();
    for (const [red, green, blue] of [
      [1, 0, 0],
      [0, 1, 0],
      [0, 0, 1],
    ])
      expect(pixels.share(([r, g, b]) => r > 150 === (red === 1) && g > 150 === (green === 1) && b > 150 === (blue === 1))).toBeGreaterThan(
        0.01,
      );
    await bench.press('maps', '.graph-bar');
    await bench.see('.map-picture canvas[data-drawn="all "]');
    expect((await bench.all('.maps-entry')).length).toBe(1);
    expect(await browser.consoleErrors()).toEqual([]);
  });
});
