import type { LightRig, Material } from '@brelvin/contract';
import { Key } from 'selenium-webdriver';
import { newMaterial, newSet } from '@brelvin/core';
import type { ServerProcess } from '../../support/server-process';
import type { Bench } from '../support/bench';
import type { Browser } from '../support/browser';
import { PICTURE_DEVICES, DEVICE_WORDS, itDrewWith } from '../support/on-both-devices';
import { withBench } from '../support/with-bench';

/** Light as something one plays: rigs, handles, motion, terms, special views. */
for (const device of PICTURE_DEVICES)
  describe(`Light, drawn with ${DEVICE_WORDS[device]}:`, () => {
    let server: ServerProcess;
    let browser: Browser;
    let bench: Bench;

    withBench((open) => ({ server, browser, bench } = open), { device });

    let opened = '';

    /** A fresh material on a plain sphere at the north window. */
    async function open(): Promise<void> {
      opened = await server.keep(newMaterial('Light', { set: 'set-plain-sphere', rig: 'rig-north-window' }));
      await bench.openMaterial(opened);
    }

    /** Where a light's dot is on the dial, -1…1. */
    async function dotPlace(id: string): Promise<{ x: number; y: number }> {
      const dot = await bench.see(`.dial-dot[data-light="${id}"]`);
      return { x: Number(await dot.getAttribute('cx')) / 52, y: -Number(await dot.getAttribute('cy')) / 52 };
    }

    const rigOf = (id: string): Promise<LightRig> => server.stored(id);
    /** The rig that the material got when the shared one was to be changed. */
    const ownRig = async (): Promise<LightRig> => {
      const seenIn = async (): Promise<string> => (await server.stored<Material>(opened)).seenIn.rig ?? '';
      // It is made first, and then named by the material.
      expect(await bench.settled(async () => (await seenIn()) !== 'rig-north-window', true)).toBeTrue();
      return rigOf(await seenIn());
    };

    /** Something is seen to change, and then to rest again. */
    async function changes(act: () => Promise<unknown>, least = 0.02): Promise<void> {
      const before = await bench.stagePixels();
      await act();
      await bench.expectChange(before, least);
    }

    it('is added, chosen, moved by its handle in the picture and by the dial, and taken back', async () => {
      await open();
      await changes(() => bench.click('[aria-label="Add a light"] option[value="point"]'));
      const handle = await bench.see('.handle[data-light]:not([data-light="sun"])');
      const id = (await handle.getAttribute('data-light')) ?? '';
      const at = await bench.middle(handle);
      await changes(() => bench.drag(at, { x: at.x - 40, y: at.y + 30 }, { x: at.x - 90, y: at.y + 60 }));
      await bench.saved();
      const moved = (await ownRig()).lights[id]!.position;
      expect(moved[0]).toBeLessThan(1.5);
      await changes(async () => bench.dragLight(await dotPlace(id), { x: -0.3, y: -0.2 }));
      await bench.saved();
      for (let step = 0; step < 8; step++) await bench.undo();
      await bench.driver.wait(async () => (await bench.all(`.handle[data-light="${id}"]`)).length === 0, 60_000, 'the light is gone');
    });

    it('has a colour for each of its parts, runs through a gradient, and has a body where it stands', async () => {
      await open();
      await bench.click('[aria-label="Add a light"] option[value="point"]');
      await bench.retype(await bench.see('[aria-label="Intensity of Point"]'), `4${Key.ENTER}`);
      const id = (await (await bench.see('.light-name[aria-pressed="true"]')).getAttribute('data-light')) ?? '';
      const handle = await bench.see(`.handle[data-light="${id}"]`);
      expect(await handle.getCssValue('fill')).toBe('rgb(255, 255, 255)');
      await changes(async () => {
        await bench.click('[aria-label^="Diffuse colour of Point"]');
        await bench.retype(await bench.see('#colour-hex'), `#ff2000${Key.ENTER}`);
        await bench.keys(Key.ESCAPE);
      });
      await changes(() => bench.press('visible', '.light-fields'), 0.0005);
      await bench.click('[aria-label="Motion"] option[value="colours"]');
      await bench.press('all hues', '.light-fields');
      await bench.expectMotion();
      await bench.press('lights', 'brelvin-mesh-bar');
      await bench.saved();
      const { tints, body, motion } = (await ownRig()).lights[id]!;
      expect(tints?.map((each) => each.map((part) => Math.round(part * 100) / 100))).toEqual([
        [1, 1, 1],
        [1, 0.01, 0],
        [1, 1, 1],
      ]);
      expect(body).toBe(0.05);
      expect(motion.through?.length).toBe(8);
      // Its handle has the colour that it has now.
      expect(await handle.getCssValue('fill')).not.toBe('rgb(255, 255, 255)');
    });

    it('is swapped as a whole rig in one choice', async () => {
      await open();
      await changes(async () => {
        await bench.pick('Lamp room', 'light rig', '.bench-bar');
        // Its environment takes a while, which is told.
        await bench.waitForText('.stage-waits', /environment/i);
      }, 0.1);
      expect((await bench.all('.stage-waits')).length).toBe(0);
      expect((await bench.all('.light-name')).length).toBe(5);
    });

    it('moves on its own clock, which stops and goes on while the camera is free', async () => {
      await open();
      await bench.pick('Moving lamp', 'light rig', '.bench-bar');
      await bench.see('brelvin-mesh-bar [aria-pressed]');
      await bench.expectMotion();
      await bench.press('lights', 'brelvin-mesh-bar');
      await bench.sharp();
      const paused = await bench.pictures();
      await bench.driver.sleep(900);
      expect(await bench.pictures())
        .withContext('paused, nothing is drawn')
        .toBe(paused);
      const canvas = await bench.middle(await bench.see('.stage-canvas'));
      await changes(() => bench.drag(canvas, { x: canvas.x + 60, y: canvas.y + 10 }, { x: canvas.x + 120, y: canvas.y + 20 }));
      await bench.press('lights', 'brelvin-mesh-bar');
      await bench.expectMotion();
      await bench.press('lights', 'brelvin-mesh-bar');
    });

    it('is taken apart: one term alone by a press, weighed by a drag, whole again', async () => {
      await open();
      await bench.press('terms', '.panel-light');
      const diffuse = await bench.see('.term[data-term="diffuse"]');
      const whole = await bench.stagePixels();
      await (await bench.see('.term[data-term="ambient"]')).click();
      await bench.driver.wait(async () => (await bench.stagePixels()).changedShare(whole) > 0.1, 60_000, 'ambient alone is dark');
      await (await bench.see('.term[data-term="ambient"]')).click();
      await bench.driver.wait(async () => (await bench.stagePixels()).changedShare(whole) < 0.01, 60_000, 'whole again');
      const at = await bench.middle(diffuse);
      await bench.drag(at, { x: at.x, y: at.y + 15 }, { x: at.x, y: at.y + 30 });
      expect(Number(await diffuse.getAttribute('aria-valuenow'))).toBeLessThan(0.8);
      expect((await bench.stagePixels()).changedShare(whole)).toBeGreaterThan(0.1);
      await bench.press('whole', '.terms-choices');
      await bench.press('light only', '.terms-choices');
      await bench.driver.wait(async () => (await bench.stagePixels()).changedShare(whole) > 0.1, 60_000, 'light on white');
      await bench.press('whole', '.terms-choices');
    });

    it('gives way to special views, by the menu and by one key', async () => {
      await open();
      const plain = await bench.stagePixels();
      await bench.press('view', 'brelvin-view-menu');
      await bench.click('[data-view="wires"]');
      await bench.keys(Key.ESCAPE);
      const wires = await bench.stagePixels();
      expect(wires.changedShare(plain)).toBeGreaterThan(0.1);
      await bench.keys(Key.F8);
      await bench.driver.wait(async () => (await bench.stagePixels()).changedShare(plain) < 0.01, 60_000, 'the picture again');
      await bench.keys(Key.F8);
      await bench.driver.wait(async () => (await bench.stagePixels()).changedShare(wires) < 0.02, 60_000, 'wires again');
      await bench.keys(Key.F8);
    });

    it('is looked at from six sides, without perspective, and from views that were kept', async () => {
      await open();
      await bench.press('view', 'brelvin-view-menu');
      await changes(() => bench.press('left', '.view-side'));
      await changes(() => bench.press('orthographic', '.view-side'), 0.001);
      const field = await bench.see('[aria-label="Name of this view"]');
      await field.sendKeys('From the quay', Key.ENTER);
      await bench.see('[aria-label="Delete From the quay"]');
      await changes(() => bench.press('above', '.view-side'));
      await changes(() => bench.press('From the quay', '.view-side'));
      await bench.keys(Key.ESCAPE);
      await bench.saved();
      expect(await browser.consoleErrors()).toEqual([]);
    });

    it('bends by a tone curve, blooms and fogs without a new program for the surface', async () => {
      await open();
      await bench.press('picture', '.panel-light');
      const programs = await bench.compiledPrograms();
      await changes(() => bench.click('[aria-label="Tone mapping"] option[value="aces"]'));
      const fog = await bench.see('[role="spinbutton"][aria-label="Fog"]');
      await changes(async () => {
        await fog.click();
        await bench.keys('0.2', Key.ENTER);
      });
      expect(await bench.compiledPrograms()).toBe(programs);
      expect(await browser.consoleErrors()).toEqual([]);
    });

    it('throws shadows on the floor of a set, which has a material of its own', async () => {
      const set = await server.keep({ ...newSet('On a floor'), floor: { shown: true, height: -1, size: 12 } });
      await bench.openMaterial(await server.keep(newMaterial('Light', { set, rig: 'rig-dusk-quay' })));
      await bench.click('.dial-dot[data-light="sun"]');
      const lit = await bench.stagePixels();
      await changes(() => bench.press('casts shadow', 'brelvin-light-fields'), 0.01);
      await changes(() => bench.undo(), 0.01);
      expect((await bench.stagePixels()).changedShare(lit))
        .withContext('the same shadow again')
        .toBeLessThan(0.01);
    });

    it('refuses what is no number, and holds what is out of range', async () => {
      await open();
      const intensity = await bench.see('[role="spinbutton"][aria-label="Intensity of the sun"]');
      await intensity.click();
      await bench.keys('0/0', Key.ENTER);
      await bench.see('.number-error');
      await bench.keys(Key.ESCAPE);
      await (await bench.see('[role="spinbutton"][aria-label="Intensity of the sun"]')).click();
      await bench.keys('-3', Key.ENTER);
      await bench.saved();
      expect((await ownRig()).sun.intensity).toBeGreaterThanOrEqual(0);
      expect(await browser.consoleErrors()).toEqual([]);
    });

    itDrewWith(device, () => bench);
  });
