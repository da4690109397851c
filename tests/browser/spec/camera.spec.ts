import { newMaterial } from '@brelvin/core';
import { PLAIN_RIG } from '../../support/seeded-database';
import type { Bench } from '../support/bench';
import type { Browser } from '../support/browser';
import { difference, type StagePixels } from '../support/stage-pixels';
import { withBench, type OpenBench } from '../support/with-bench';

describe('The camera', () => {
  let open: OpenBench;
  let bench: Bench;
  let browser: Browser;
  let framed: StagePixels;

  withBench((opened) => {
    open = opened;
    ({ bench, browser } = opened);
  });

  beforeEach(async () => {
    const id = `camera${Date.now()}`;
    const document = newMaterial('Camera', { set: 'set-plain-sphere', rig: PLAIN_RIG });
    expect((await open.server.request('POST', '/documents', { id, document })).status).toBe(201);
    await bench.openMaterial(id);
    framed = await bench.stagePixels();
  });

  afterEach(async () => {
    expect(await browser.consoleErrors()).toEqual([]);
  });

  const orbit = async (): Promise<void> => {
    const { x, y } = await bench.middle(await bench.see('.stage-canvas'));
    await bench.drag({ x, y }, { x: x + 60, y: y + 90 }, { x: x + 90, y: y + 120 });
  };

  it('stands after a reload where it was left', async () => {
    await orbit();
    await bench.expectChange(framed, 0.02);
    const left = await bench.stagePixels();
    await bench.saved();
    await bench.driver.navigate().refresh();
    await bench.ready();
    expect((await bench.stagePixels()).changedShare(left)).toBeLessThan(0.01);
  });

  it('frames another set anew, wherever it was', async () => {
    await orbit();
    await bench.pick('Puppet on stand', 'set', '.bench-bar');
    await bench.waitForText('.bench-bar', /Puppet on stand/);
    await bench.sharp();
    await bench.pick('Plain sphere', 'set', '.bench-bar');
    await bench.waitForText('.bench-bar', /Plain sphere/);
    // As large and as much in the middle as at first, seen from where the camera was left.
    const anew = await bench.stagePixels();
    expect(anew.changedShare(framed)).toBeLessThan(0.2);
    const ground = framed.at(3, 3);
    for (const seen of [framed, anew]) {
      const edge = Array.from({ length: seen.width }, (_, x) => x).find((x) => difference(seen.at(x, seen.height / 2), ground) > 8) ?? 0;
      expect(edge / seen.width).toBeGreaterThan(0.01);
      expect(edge / seen.width).toBeLessThan(0.15);
    }
  });

  it('fits what is compared beside into both halves', async () => {
    await bench.press('compare', '.mesh-bar');
    await bench.pick('Dusk quay', 'light rig: choose', '.compare-panel');
    await bench.waitForText('.compare-numbers', /apart/);
    const { width, height } = framed;
    const beside = await bench.stagePixels();
    const ground = beside.at(3, 3);
    const apart = (x: number): number => difference(beside.at(x, height / 2), ground);
    expect(apart(width / 4)).toBeGreaterThan(8);
    for (const x of [2, width / 2 - 4]) expect(apart(x)).toBeLessThan(3);
    await bench.click('[aria-label="Stop comparing"]');
    await bench.driver.wait(async () => (await bench.all('.compare-bar')).length === 0, 60_000, 'one picture again');
    expect((await bench.stagePixels()).changedShare(framed)).toBeLessThan(0.01);
  });
});
