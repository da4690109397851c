import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Material, StageSet } from '@brelvin/contract';
import { PNG } from 'pngjs';
import { Key } from 'selenium-webdriver';
import { newMaterial, newSet } from '@brelvin/core';
import { PLAIN_RIG } from '../../support/seeded-database';
import type { ServerProcess } from '../../support/server-process';
import type { Bench } from '../support/bench';
import type { Browser } from '../support/browser';
import { underPlainDay } from '../support/plain-day';
import { withBench } from '../support/with-bench';

/** A picture of one colour. */
function picture(width: number, height: number, [red, green, blue]: readonly number[]): Buffer {
  const png = new PNG({ width, height });
  for (let at = 0; at < png.data.length; at += 4) png.data.set([red ?? 0, green ?? 0, blue ?? 0, 255], at);
  return PNG.sync.write(png);
}

/** Several materials on one set, and images as nodes. */
describe('Sets and images', () => {
  let server: ServerProcess;
  let browser: Browser;
  let bench: Bench;

  withBench((open) => ({ server, browser, bench } = open));

  /** A material in a set of its own. */
  async function open(
    shape: Parameters<typeof newSet>[1] = 'sphere',
    change: Partial<Material> = {},
  ): Promise<{ id: string; set: string }> {
    const set = await server.keep(newSet('Stand', shape));
    const id = await server.keep({ ...newMaterial('Dressed', { set, rig: PLAIN_RIG }), ...change });
    await bench.openMaterial(id);
    return { id, set };
  }

  const storedSet = async (id: string): Promise<StageSet> => {
    await bench.saved();
    return server.stored(id);
  };

  it('put another material on a part that was picked in the picture', async () => {
    const { set } = await open('cube');
    await bench.press('parts', '.graph-bar');
    const stage = await bench.middle(await bench.see('.stage-canvas'));
    await bench.drag(stage, stage);
    const chosen = await bench.waitForText('brelvin-part-dressing h2', /\w+/);
    const before = await bench.stagePixels();
    await bench.pick('Kite dusk', 'material:', 'brelvin-part-dressing');
    await bench.waitForText('.parts-part.chosen', /Kite dusk/);
    await bench.driver.wait(async () => (await bench.stagePixels()).changedShare(before) > 0.03, 60_000, 'the part wears it');
    const rules = Object.values((await storedSet(set)).partRules);
    expect(rules.map((rule) => [rule.pattern, rule.material])).toEqual([[chosen, 'material-kite-dusk']]);
    await bench.undo();
    await bench.waitForText('.parts-part.chosen', /on the Bench/);
  });

  it('are picked among 500 of which 20 bear one name, by search and by keys alone', async () => {
    const { set } = await open('cube');
    for (let index = 0; index < 500; index += 20)
      await Promise.all(
        Array.from({ length: 20 }, (_, of) => {
          const name = of === 0 && index < 400 ? 'Storm lantern' : `Keel ${index + of}`;
          return server.keep({ ...newMaterial(name), tags: [of === 0 ? 'lantern' : 'keel'] });
        }),
      );
    await bench.press('parts', '.graph-bar');
    await bench.click('.parts-part');
    await bench.press('material:', 'brelvin-part-dressing');
    await bench.see('.picker-list input');
    expect(await bench.waitForText('.picker-list [role="status"]', /5\d\d materials/)).toBeTruthy();
    await bench.keys('storm');
    await bench.waitForText('.picker-list [role="status"]', /^20 materials$/);
    await bench.keys(...Array.from({ length: 12 }, () => Key.ARROW_DOWN));
    const row = await (await bench.see('.picker-entry.chosen')).getRect();
    const list = await (await bench.see('.picker-rows')).getRect();
    expect(row.y).toBeGreaterThanOrEqual(list.y - 1);
    expect(row.y + row.height).toBeLessThanOrEqual(list.y + list.height + 1);
    await bench.keys(Key.ENTER);
    await bench.waitForText('.parts-part.chosen', /Storm lantern/);
    const [rule] = Object.values((await storedSet(set)).partRules);
    expect((await server.stored<Material>(rule?.material ?? '')).name).toBe('Storm lantern');
    expect(await browser.consoleErrors()).toEqual([]);
  });

  it('show eyes over hair from every view by their depth offset', async () => {
    await bench.openMaterial(await underPlainDay(server, 'material-painted-eyes'));
    await bench.press('parts', '.graph-bar');
    const eyes = await bench.driver.wait(async () => {
      for (const part of await bench.all('.parts-part')) if ((await part.getText()).startsWith('eyes')) return part;
      return undefined;
    }, 10_000);
    await eyes!.click();
    const stage = await bench.middle(await bench.see('.stage-canvas'));
    for (const dx of [0, 70, -140]) {
      if (dx !== 0) await bench.drag(stage, { x: stage.x + dx / 2, y: stage.y + 10 }, { x: stage.x + dx, y: stage.y + 20 });
      const over = await bench.stagePixels();
      const field = await bench.see('brelvin-part-dressing [aria-label="Depth offset"]');
      await field.click();
      await bench.keys('0', Key.ENTER);
      // Without the offset, fringe and brows hide part of the eyes.
      await bench.expectChange(over, 0.001);
      await bench.undo();
    }
  });

  it('turn, mirror, spin and copy meshes, add and remove them, lay a floor', async () => {
    const { set } = await open('cube');
    await bench.press('parts', '.graph-bar');
    // A press on the mesh's own row is enough for its place.
    await bench.click('.parts-mesh-name');
    expect((await bench.all('brelvin-part-dressing')).length).toBe(0);
    const before = await bench.stagePixels();
    await (await bench.see('[aria-label="Rotation, ° y"]')).click();
    await bench.keys('30', Key.ENTER);
    await bench.expectChange(before, 0.02);
    await (await bench.see('[aria-label="Columns"]')).click();
    await bench.keys('3', Key.ENTER);
    await bench.press('left ↔ right', '.parts-detail');
    await bench.press('floor', '.parts-tools');
    await bench.pick('Torus', 'Add', '.parts-tools');
    await bench.waitForText('.parts-mesh', /Torus/);
    const changed = await storedSet(set);
    expect(changed.meshes['mesh']?.copies.columns).toBe(3);
    expect(changed.meshes['mesh']?.placing.scale[0]).toBe(-1);
    expect([Object.keys(changed.meshes).length, changed.floor.shown]).toEqual([2, true]);
    await bench.press('Remove Torus', '.parts-list');
    await bench.driver.wait(async () => !(await bench.text('.parts-list')).includes('Torus'), 60_000, 'the torus is gone');
    expect(Object.keys((await storedSet(set)).meshes)).toEqual(['mesh']);
  });

  it('take a formula as a mesh while it is typed, and say what is wrong with it', async () => {
    await open('height');
    await bench.press('parts', '.graph-bar');
    await bench.click('.parts-part');
    const before = await bench.stagePixels();
    const field = await bench.see('.formula');
    await field.sendKeys(Key.chord(Key.CONTROL, 'a'), '0.4 * x * x - 0.3');
    expect((await bench.stagePixels()).changedShare(before)).toBeGreaterThan(0.02);
    await field.sendKeys(' + sni(z)');
    await bench.waitForText('.formula-problem', /Line 1, column \d+: .*"sni"/);
  });

  it('drop an image on an inlet: stored, decoded, lit, and found again', async () => {
    const { id } = await open('plane');
    const before = await bench.stagePixels();
    const row = await bench.see('[data-kind="lambert"] .port[data-inlet="base"]');
    await bench.dropFile(row, 'tide mark.png', 'image/png', picture(8, 8, [200, 30, 30]));
    await bench.see('[data-kind="image"]');
    await bench.expectConnected(await bench.inlet('lambert', 'base'));
    await bench.driver.wait(async () => (await bench.stagePixels()).changedShare(before) > 0.05, 60_000, 'the image shows');
    const [red = 0, green = 0] = (await bench.stagePixels()).at(240, 250);
    expect(red).toBeGreaterThan(green * 2);
    await bench.saved();
    const document = await server.stored<Material>(id);
    expect(Object.values(document.images).map((image) => [image.name, image.width, image.role])).toEqual([['tide mark', 8, 'colour']]);
    await bench.openMaterial(id);
    await bench.driver.wait(async () => (await bench.stagePixels()).at(240, 250)[0] > 100, 60_000, 'the image shows after a reload');
    // What the image took the place of is told, and that all of it has one colour.
    await bench.waitForText('.panel-tabs', /checks 2/);
  });

  const bad: readonly (readonly [string, string, string, () => Buffer, RegExp])[] = [
    [
      'a cut-off PNG',
      'cut.png',
      'image/png',
      () => picture(64, 64, [9, 9, 9]).subarray(0, 90),
      /“cut.png” was not imported.*(damaged|cut off)/,
    ],
    [
      'a PNG that claims 60,000 × 60,000 pixels',
      'huge.png',
      'image/png',
      () => {
        const file = picture(4, 4, [1, 2, 3]);
        file.writeUInt32BE(60_000, 16);
        file.writeUInt32BE(60_000, 20);
        return file;
      },
      /60000 × 60000 pixels/,
    ],
    [
      'an SVG with a script',
      'drawing.svg',
      'image/svg+xml',
      () => Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="4" height="4"><script>window.bad = 1</script></svg>'),
      /SVG; PNG, JPEG and WebP are taken|no PNG, JPEG or WebP/,
    ],
  ];
  for (const [what, name, type, content, words] of bad) {
    it(`refuse ${what}, and lose nothing`, async () => {
      await open();
      await bench.dropFile(await bench.see('.graph-surface'), name, type, content(), await bench.ground(300, 420));
      await bench.waitForText('.graph-refusal', words);
      await bench.expectCards(2);
      expect(await bench.driver.executeScript('return window.bad')).toBeNull();
    });
  }

  it('send a material out with its images, and take it in again', async () => {
    const archive = Buffer.from(await (await fetch(`${server.address}/api/documents/material-label-front/file`)).arrayBuffer());
    const folder = mkdtempSync(join(tmpdir(), 'brelvin-crate-'));
    writeFileSync(join(folder, 'label.brelvin'), archive);
    await bench.openLibrary();
    const before = Number(await bench.waitForText('.library-total', /\d+/));
    await (await bench.see('input[type="file"]')).sendKeys(join(folder, 'label.brelvin'));
    await bench.waitForText('.library-total', new RegExp(`^${before + 1}$`));
    // The newest stands first.
    expect(await bench.settled(() => bench.text('.library-name'), 'Label, front')).toBe('Label, front');
  });

  it('list sets, light rigs and images on shelves of their own, deleted things on one more', async () => {
    await bench.openLibrary();
    await bench.press('Images', '.library-head');
    const images = (): Promise<string[]> =>
      bench.driver.executeScript(`return [...document.querySelectorAll('.library-name')].map((each) => each.textContent);`);
    await bench.driver.wait(async () => (await images()).includes('float-scratches.png'), 60_000, 'images on their shelf');
    await bench.press('float-scratches.png', 'brelvin-windowed-grid');
    await bench.retype(await bench.see('[aria-label="New name of float-scratches.png"]'), 'Tern in front');
    await bench.driver.wait(async () => (await images()).includes('Tern in front'), 60_000, 'the new name');
    await bench.press('Delete Tern in front');
    await bench.driver.wait(async () => !(await images()).includes('Tern in front'), 60_000, 'off the shelf');
    await bench.press('Undo', '.toast');
    await bench.driver.wait(async () => (await images()).includes('Tern in front'), 60_000, 'back on the shelf');
    await bench.press('Sets', '.library-head');
    await bench.waitForText('.library-name', /Puppet on stand/);
    await bench.press('Delete Knotted rope');
    await bench.waitForText('.toast', /Knotted rope/);
    await bench.press('deleted', '.library-head');
    await bench.waitForText('.library-name', /Knotted rope/);
    await bench.press('Restore Knotted rope');
    await bench.press('deleted', '.library-head');
    expect(await bench.waitForText('.library-name', /Knotted rope/)).toContain('Puppet on stand');
  });

  it('find mistakes, explain them, mend them in one step, and keep quiet where told to', async () => {
    await open('sphere', {
      surface: {
        ...newMaterial('x').surface,
        nodes: { ...newMaterial('x').surface.nodes, idle: { kind: 'sine', rev: 1, x: 60, y: 300, values: {} } },
      },
    });
    await bench.press('checks', '.panel-tabs');
    await bench.waitForText('.finding-title', /not used: Sine/);
    await bench.press('why', '.finding');
    await bench.waitForText('.finding', /costs? nothing/);
    await bench.press('ignore here', '.finding');
    await bench.waitForText('.panel-about', /1 switched off/);
    await bench.press('1 switched off');
    await bench.press('Remove it', '.finding');
    await bench.expectCards(2);
    await bench.waitForText('.panel-about', /Nothing found/);
    expect((await browser.consoleErrors()).filter((each) => !each.includes('422'))).toEqual([]);
  });
});
