import { readFileSync, writeFileSync } from 'node:fs';
import { mkdtemp } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Key } from 'selenium-webdriver';
import { DEMO_DOCUMENTS } from '@brelvin/core';
import { main as commandLine } from '../../../apps/cli/src/main';
import { seededDatabase } from '../../support/seeded-database';
import { ServerProcess } from '../../support/server-process';
import { Bench } from '../support/bench';
import { Browser } from '../support/browser';
import { difference } from '../support/stage-pixels';

/** The whole first hour of a new user, in one go. */
describe('A toon material from nothing', () => {
  let browser: Browser;
  let server: ServerProcess;
  let bench: Bench;
  let database: string;

  beforeAll(async () => {
    database = await seededDatabase({ pictures: false });
    server = await ServerProcess.start(database);
    browser = await Browser.open();
    bench = new Bench(browser.driver, server.address);
  });

  afterAll(async () => {
    await browser?.close();
    await server?.stop();
  });

  it('is made, lit, saved and found again', async () => {
    // The Library shows the demo's materials, as they really look.
    const demo = DEMO_DOCUMENTS.filter(({ document }) => document.format === 'brelvin-material').map(({ document }) => document.name);
    await bench.openLibrary();
    await bench.driver.wait(async () => (await bench.all('img.library-picture')).length === demo.length, 180_000, 'all pictures');
    const names = await Promise.all((await bench.all('.library-name')).map((each) => each.getText()));
    expect(names.sort()).toEqual(demo.sort());

    // A new material stands lit on the Stage at once.
    await bench.press('New material');
    await bench.ready();
    const plain = await bench.stagePixels();
    const [middleX, middleY] = [plain.width / 2, plain.height / 2];
    expect(plain.brightness(middleX, middleY)).toBeGreaterThan(plain.brightness(8, 8) + 30);
    const address = await bench.driver.getCurrentUrl();
    const id = address.split('/').at(-1) ?? '';

    // Typing on the graph finds Bands; ribbons bring the colour in and the light to the dock.
    await bench.addNode('bands', await bench.ground(420, 320));
    await bench.connect(await bench.outlet('colour'), await bench.inlet('bands', 'base'));
    await bench.expectConnected(await bench.inlet('bands', 'base'));
    await bench.connect(await bench.outlet('bands'), await bench.dockInlet());
    await bench.sharp();

    // The light comes from the left, so the bands stand side by side.
    await bench.dragLight(await bench.dialPlace(), { x: -0.66, y: 0 });
    expect((await bench.stagePixels()).bandCount())
      .withContext('bands in the picture')
      .toBe(3);

    // Dragging the number makes six; the picture follows each move of the hand, without a new program.
    const programs = await bench.compiledPrograms();
    const field = await bench.middle(await bench.number('bands', 'Bands'));
    await bench.dragWatching(...[-24, -16, -3, 10, 24].map((dx) => ({ x: field.x + dx, y: field.y })));
    await bench.expectNumber('bands', 'Bands', 6);
    expect(await bench.settled(async () => (await bench.stagePixels()).bandCount(), 6))
      .withContext('bands after the drag')
      .toBe(6);
    expect(await bench.compiledPrograms()).toBe(programs);

    // A tint for the shade.
    const before = await bench.stagePixels();
    const shade = { x: Math.round(before.width * 0.8), y: before.height / 2 };
    await bench.click('[data-kind="bands"] brelvin-colour .swatch');
    await bench.retype(await bench.see('.colour-picker #colour-hex'), '#3060c0');
    await bench.keys(Key.ESCAPE);
    const tinted = await bench.stagePixels();
    expect(difference(before.at(shade.x, shade.y), tinted.at(shade.x, shade.y))).toBeGreaterThan(8);
    const [red, , blue] = tinted.at(shade.x, shade.y);
    expect(blue).toBeGreaterThan(red);

    // The light goes to the other side, and the bands with it.
    expect(tinted.brightness(middleX - 130, middleY)).toBeGreaterThan(tinted.brightness(middleX + 130, middleY) + 20);
    await bench.dragLight(await bench.dialPlace(), { x: 0.66, y: 0 });
    const turned = await bench.stagePixels();
    expect(turned.brightness(middleX + 130, middleY)).toBeGreaterThan(turned.brightness(middleX - 130, middleY) + 20);

    // Orbit: the picture goes on moving after the hand has let go, then rests.
    const stage = await bench.middle(await bench.see('.stage-canvas'));
    await bench.drag(stage, { x: stage.x - 60, y: stage.y + 20 }, { x: stage.x - 140, y: stage.y + 40 });
    const released = await bench.pictures();
    await bench.sharp();
    expect(await bench.pictures()).toBeGreaterThan(released);
    expect((await bench.dialPlace()).x).not.toBeCloseTo(0.66, 1);

    // A cube, with more segments.
    await bench.press('mesh:');
    await bench.press('Cube', '.mesh-panel');
    const segments = await bench.see('.mesh-numbers [aria-label="Segments"]');
    await segments.click();
    await bench.keys('4*2', Key.ENTER);
    await bench.keys(Key.ESCAPE);
    expect(await bench.text('.mesh-bar')).toContain('cube');
    const cube = await bench.stagePixels();
    expect(cube.changedShare(turned)).toBeGreaterThan(0.05);

    // Everything can be taken back to the plain sphere, and done again.
    await bench.saved();
    for (let step = 0; step < 30; step++) await bench.undo();
    await bench.expectCards(2);
    expect(await bench.text('.mesh-bar')).toContain('sphere');
    for (let step = 0; step < 30; step++) await bench.redo();
    await bench.expectCards(3);
    await bench.expectNumber('bands', 'Bands', 6);
    expect(await bench.text('.mesh-bar')).toContain('cube');

    await bench.retype(await bench.see('.material-name'), 'Loft lantern');
    await bench.saved();
    // As it looks when it is opened afresh.
    await bench.openMaterial(id);
    const finished = await bench.stagePixels();

    // The server stops and starts again; nothing is lost.
    expect(await server.stop()).toBe(0);
    server = await ServerProcess.start(database);
    bench = new Bench(browser.driver, server.address);
    await bench.openLibrary();
    // The page before went on knocking at the closed door until it was left.
    const whileAway = await browser.consoleErrors();
    expect(whileAway.filter((each) => !each.includes('ERR_CONNECTION_REFUSED'))).toEqual([]);
    await bench.waitForText('.library-name', /^Loft lantern|\| Loft lantern/);
    await bench.click(`[data-material="${id}"] .library-open`);
    await bench.ready();
    await bench.expectNumber('bands', 'Bands', 6);
    expect(await bench.text('.mesh-bar')).toContain('cube');
    const again = await bench.stagePixels();
    expect(again.changedShare(finished)).withContext('the same picture').toBeLessThan(0.01);
    await bench.expectConnected(await bench.dockInlet());

    // The command line checks it and makes GLSL of it.
    const folder = await mkdtemp(join(tmpdir(), 'brelvin-out-'));
    const file = join(folder, 'lantern.brelvin');
    const stored = await fetch(`${server.address}/api/documents/${id}/file`);
    writeFileSync(file, await stored.text());
    const lines: string[] = [];
    const output = { out: (line: string) => void lines.push(line), err: (line: string) => void lines.push(line) };
    expect(await commandLine(['check', file], output)).toBe(0);
    expect(await commandLine(['emit', file, '--target', 'glsl', '--out', folder], output)).toBe(0);
    expect(readFileSync(join(folder, 'lantern.frag'), 'utf8')).toContain('bands(');
    expect(await browser.consoleErrors()).toEqual([]);
  });
});
