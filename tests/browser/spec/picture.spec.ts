import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { BrelvinDocument, LightRig, Material } from '@brelvin/contract';
import { Key, Origin, type WebElement } from 'selenium-webdriver';
import { newMaterial } from '@brelvin/core';
import { PNG } from 'pngjs';
import type { ServerProcess } from '../../support/server-process';
import type { Bench } from '../support/bench';
import type { Browser } from '../support/browser';
import { underPlainDay } from '../support/plain-day';
import { withBench } from '../support/with-bench';
import type { StagePixels } from '../support/stage-pixels';

function withoutShadows({ occlusion: _, ...rig }: LightRig): LightRig {
  const lights = Object.entries(rig.lights).map(([id, light]) => [id, { ...light, casts: false }] as const);
  return { ...rig, sun: { ...rig.sun, casts: false }, lights: Object.fromEntries(lights) };
}

/** What is round the picture, behind it and beside it: outlines, backgrounds, a second picture; and what may go wrong. */
describe('The picture', () => {
  let server: ServerProcess;
  let browser: Browser;
  let bench: Bench;

  withBench((open) => ({ server, browser, bench } = open));

  const documentOf = <T extends BrelvinDocument>(id: string): Promise<T> => server.stored<T>(id);

  /** A material of its own on the plain sphere, under a copy of the north window without shadows: it draws in half the time. */
  async function open(change: Partial<Material> = {}): Promise<{ id: string; rig: string }> {
    const rig = await server.keep(withoutShadows(await documentOf('rig-north-window')));
    const id = await server.keep({ ...newMaterial('Picture', { set: 'set-plain-sphere', rig }), ...change });
    await bench.openMaterial(id);
    return { id, rig };
  }

  async function changes(act: () => Promise<unknown>, least = 0.01): Promise<void> {
    const before = await bench.stagePixels();
    await act();
    await bench.expectChange(before, least);
  }

  it('is saved as a still: as large as the Stage, of a typed size in tiles, and without a background', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'brelvin-stills-'));
    await browser.saveInto(folder);
    await open();
    await bench.press('view', 'brelvin-view-menu');
    await bench.press('save a still', '.still-fields');
    const first = await savedPng(folder);
    const canvas = await bench.see('.stage-canvas canvas');
    expect([first.width, first.height]).toEqual(await sizeOf(canvas));
    expect(alphas(first)).toEqual(new Set([255]));

    await bench.press('shape of the Stage', '.still-fields');
    await bench.retype(await bench.see('[aria-label="Width of the still"]'), `2100${Key.ENTER}`);
    await bench.retype(await bench.see('[aria-label="Height of the still"]'), `120${Key.ENTER}`);
    expect(await bench.text('.still-fields .hint')).toContain('Drawn in tiles');
    await bench.press('transparent', '.still-fields');
    await bench.press('save a still', '.still-fields');
    const strip = await savedPng(folder);
    expect([strip.width, strip.height]).toEqual([2100, 120]);
    const seen = alphas(strip);
    expect(seen.has(0)).withContext('nothing behind').toBeTrue();
    expect(seen.has(255)).withContext('the mesh').toBeTrue();
    expect((await bench.all('.notice')).length)
      .withContext('the notice goes with its work')
      .toBe(0);

    // Too large a number is refused where it is typed.
    await bench.retype(await bench.see('[aria-label="Width of the still"]'), `20000${Key.ENTER}`);
    await bench.waitForText('.still-fields', /at most 8,?192/);
    await bench.keys(Key.ESCAPE);
  });

  it('tells with the picture alone what a file cannot be, and covers no button by it', async () => {
    await open();
    await bench.keys(Key.F9);
    await bench.dropFile(await bench.see('.stage-canvas'), 'tides.txt', 'text/plain', Buffer.from('low'));
    await bench.waitForText('.notices-over .notice', /a file becomes the environment/);
    const [notice, bar] = [await (await bench.see('.notices-over')).getRect(), await (await bench.see('.mesh-bar')).getRect()];
    expect(notice.y + notice.height).toBeLessThanOrEqual(bar.y + 1);
    await bench.press('alone', '.mesh-bar');
  });

  const alphas = ({ data }: PNG): Set<number> => new Set(Array.from({ length: data.length / 4 }, (_, pixel) => data[pixel * 4 + 3] ?? 0));
  const sizeOf = (canvas: WebElement): Promise<[number, number]> =>
    bench.driver.executeScript('return [arguments[0].width, arguments[0].height]', canvas);

  it('gets an outline by two presses, coloured from the graph, wider by a drag, gone by undo', async () => {
    const { id } = await open();
    const plain = await bench.stagePixels();
    await bench.press('outline', '.panel-about');
    await changes(() => bench.press('silhouette', '.outline-panel'), 0.002);
    await bench.addNode('colour', await bench.ground(60, 300));
    await changes(async () => {
      await bench.connect(await bench.outlet('colour'), await bench.dockInlet('outline'));
    }, 0.002);
    const width = await bench.middle(await bench.see('[aria-label="Width of the outline"]'));
    await changes(() => bench.drag(width, { x: width.x + 40, y: width.y }, { x: width.x + 80, y: width.y }), 0.004);
    await bench.press('silhouette and creases', '.outline-panel');
    await bench.press('metres', '.outline-panel');
    await bench.saved();
    const { outline } = await documentOf<Material>(id);
    expect([outline?.method, outline?.unit]).toEqual(['edges', 'metres']);
    for (let step = 0; step < 6; step++) await bench.undo();
    await bench.driver.wait(async () => (await bench.stagePixels()).changedShare(plain) < 0.001, 60_000, 'no outline again');
  });

  it('has nothing behind it where that is wanted, or an image', async () => {
    const { rig } = await open();
    await bench.press('picture', '.panel-light');
    await changes(() => bench.click('[aria-label="Kind of background"] option[value="nothing"]'), 0.1);
    await bench.click('[aria-label="Kind of background"] option[value="image"]');
    const file = await bench.see('[aria-label="Background image from a file"]');
    const path = join(mkdtempSync(join(tmpdir(), 'brelvin-plate-')), 'plate.png');
    writeFileSync(path, pngOf(40, 20, [20, 160, 60]));
    await changes(async () => file.sendKeys(path), 0.1);
    await bench.saved();
    const { backgroundImage, transparent } = await documentOf<LightRig>(rig);
    expect([backgroundImage?.image.name, backgroundImage?.image.width, transparent]).toEqual(['plate', 40, undefined]);
    await bench.click('[aria-label="Kind of background"] option[value="image"]');
    writeFileSync(path, 'no image');
    await (await bench.see('[aria-label="Background image from a file"]')).sendKeys(path);
    await bench.waitForText('.background-field [role="alert"]', /plate\.png.* was not imported/);
    expect(await browser.consoleErrors()).toEqual([]);
  });

  it('is lit by hand: a group that runs for each light, entered and changed', async () => {
    const { id } = await open();
    await bench.addNode('for each', await bench.ground(60, 200));
    await changes(async () => {
      await bench.connect(await bench.see('[data-kind="group"] .port[data-outlet]'), await bench.dockInlet());
    });
    const one = await bench.stagePixels();
    await bench.click('[aria-label="Add a light"] option[value="sun"]');
    await bench.expectChange(one, 0.05);
    await bench.choose('group');
    await bench.keys(Key.PAGE_DOWN);
    await bench.see('.trail');
    await changes(async () => {
      await (await bench.number('clamp', 'High')).click();
      await bench.keys('0.3', Key.ENTER);
    });
    await bench.press('once for each light', '.group-panel');
    await bench.waitForText('.problem', /only in a group that runs for each light/);
    await bench.press('once for each light', '.group-panel');
    await bench.driver.wait(async () => (await bench.all('.problem')).length === 0, 60_000, 'mended');
    await bench.saved();
    expect(Object.values((await documentOf<Material>(id)).groups)[0]?.eachLight).toBeTrue();
  });

  it('is compared with another light rig, by side, wipe and difference, with one camera', async () => {
    await bench.openMaterial(await underPlainDay(server, 'material-slate-of-tides'));
    await bench.press('compare', '.mesh-bar');
    await bench.pick('Dusk quay', 'light rig: choose', '.compare-panel');
    await bench.waitForText('.compare-numbers', /apart .* · \d+ and \d+ ms/);
    const { width, height } = await (await bench.see('.stage-canvas')).getRect();
    const beside = await bench.stagePixels();
    expect(beside.at(width / 4, height - 6)).not.toEqual(beside.at((width * 3) / 4, height - 6));
    await changes(() => bench.click('[data-choice="wipe"]'), 0.1);
    const line = await bench.middle(await bench.see('.compare-wipe'));
    await changes(() => bench.drag(line, { x: line.x + 60, y: line.y }, { x: line.x + 140, y: line.y }), 0.05);
    await (await bench.see('.compare-wipe')).sendKeys(Key.END);
    await bench.driver.wait(
      async () => (await (await bench.see('.compare-wipe')).getAttribute('aria-valuenow')) === '100',
      60_000,
      'by keys',
    );
    await changes(() => bench.click('[data-choice="difference"]'), 0.1);
    const canvas = await bench.middle(await bench.see('.stage-canvas'));
    await changes(() => bench.drag(canvas, { x: canvas.x + 80, y: canvas.y + 30 }, { x: canvas.x + 160, y: canvas.y + 60 }), 0.05);
    await bench.click('[aria-label="Stop comparing"]');
    await bench.driver.wait(async () => (await bench.all('.compare-bar')).length === 0, 60_000, 'one picture again');
    await bench.sharp();
    expect(await browser.consoleErrors()).toEqual([]);
  });

  it('is compared with a version of itself, and with another value of a parameter', async () => {
    await open({
      parameters: { p: { name: 'Strength', type: 'number', value: 0.8, low: 0, high: 1, order: 0 } },
      surface: {
        ...newMaterial('x').surface,
        nodes: {
          p: { kind: 'parameter', rev: 1, x: 0, y: 0, values: {}, parameter: 'p' },
          l: { kind: 'lambert', rev: 1, x: 260, y: 0, values: {} },
        },
        ribbons: { 'l.base': { from: 'p', outlet: 'result' }, 'dock.colour': { from: 'l', outlet: 'result' } },
      },
    });
    await bench.press('history', '.panel-about');
    await (await bench.see('[aria-label="Name of the version"]')).sendKeys('before the fair', Key.ENTER);
    await bench.waitForText('.history-version', /before the fair/);
    await bench.press('compare', '.mesh-bar');
    await bench.press('before the fair', '.compare-panel');
    await bench.waitForText('.compare-numbers', /no difference/);
    const strength = await bench.see('brelvin-parameters-panel [role="spinbutton"][aria-label="Strength"]');
    await strength.click();
    await bench.keys('0.3', Key.ENTER);
    await bench.waitForText('.compare-numbers', /apart/);
    await bench.press('compare', '.mesh-bar');
    await bench.press('Strength', '.compare-panel');
    await bench.waitForText('.compare-numbers', /no difference/);
    await (await bench.see('[aria-label="Strength in the second picture"]')).click();
    await bench.keys('1', Key.ENTER);
    await bench.waitForText('.compare-numbers', /apart/);
    expect(await browser.consoleErrors()).toEqual([]);
  });

  it('comes back after its context was lost in the middle of a drag, and the drag counts', async () => {
    const { rig } = await open();
    const before = (await documentOf<LightRig>(rig)).sun.direction;
    const dot = await bench.middle(await bench.see('.dial-dot[data-light="sun"]'));
    const pointer = bench.driver.actions({ async: true });
    await pointer
      .move({ ...dot, origin: Origin.VIEWPORT, duration: 0 })
      .press()
      .perform();
    await bench.driver
      .actions({ async: true })
      .move({ x: dot.x + 15, y: dot.y + 10, origin: Origin.VIEWPORT, duration: 60 })
      .perform();
    await bench.driver.executeScript(
      `window.lost = document.querySelector('.stage-canvas canvas').getContext('webgl2').getExtension('WEBGL_lose_context');
       window.lost.loseContext();`,
    );
    await bench.waitForText('.stage-notice', /device was lost/);
    await bench.driver
      .actions({ async: true })
      .move({ x: dot.x + 35, y: dot.y + 25, origin: Origin.VIEWPORT, duration: 60 })
      .perform();
    await bench.driver.executeScript('window.lost.restoreContext()');
    await bench.driver.actions({ async: true }).release().perform();
    await bench.sharp();
    await bench.saved();
    expect((await documentOf<LightRig>(rig)).sun.direction).not.toEqual(before);
    expect(brightest(await bench.stagePixels())).toBeGreaterThan(60);
  });

  it('stays a picture with a light inside of the mesh, and with a mesh that is scaled to nothing', async () => {
    await open();
    await bench.click('[aria-label="Add a light"] option[value="point"]');
    for (const axis of ['x', 'y', 'z']) {
      await (await bench.see(`[role="spinbutton"][aria-label^="Position ${axis}"]`)).click();
      await bench.keys('0', Key.ENTER);
    }
    await bench.saved();
    expect(brightest(await bench.stagePixels())).toBeGreaterThan(60);
    await bench.press('parts', '.graph-bar');
    await bench.click('.parts-part');
    for (const axis of ['x', 'y', 'z']) {
      await (await bench.see(`[role="spinbutton"][aria-label^="Scale ${axis}"]`)).click();
      await bench.keys('0', Key.ENTER);
    }
    await bench.sharp();
    await bench.saved();
    for (let step = 0; step < 3; step++) await bench.undo();
    await bench.press('graph', '.graph-bar');
    await bench.saved();
    expect(brightest(await bench.stagePixels())).toBeGreaterThan(60);
    expect(await browser.consoleErrors()).toEqual([]);
  });
});

/** The brightest place of the middle row. */
function brightest(pixels: StagePixels): number {
  return Math.max(...Array.from({ length: pixels.width }, (_, x) => pixels.brightness(x, pixels.height / 2)));
}

/** The PNG that the browser saves next, whole. */
async function savedPng(folder: string, patience = 120_000): Promise<PNG> {
  for (const end = Date.now() + patience; Date.now() < end; await new Promise((resolve) => setTimeout(resolve, 200))) {
    const [name] = readdirSync(folder).filter((each) => each.endsWith('.png'));
    if (name === undefined) continue;
    const found = PNG.sync.read(readFileSync(join(folder, name)));
    rmSync(join(folder, name));
    return found;
  }
  throw new Error('nothing was saved');
}

function pngOf(width: number, height: number, colour: readonly [number, number, number]): Buffer {
  const png = new PNG({ width, height });
  for (let at = 0; at < png.data.length; at += 4) png.data.set([...colour, 255], at);
  return PNG.sync.write(png);
}
