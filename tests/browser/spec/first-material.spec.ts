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
import type { Browser } from '../support/browser';
import { difference, type StagePixels } from '../support/stage-pixels';
import { withBench } from '../support/with-bench';

/** The whole first hour of a new user: each step goes on where the one before has ended. */
describe('A toon material from nothing', () => {
  let browser: Browser;
  let server: ServerProcess;
  let bench: Bench;
  let database: string;
  let id: string;
  /** What the Stage showed last, and its middle. */
  let seen: StagePixels;
  let middle: { readonly x: number; readonly y: number };

  const oneUndrawn = async (): Promise<string> => (database = await seededDatabase({ undrawn: 'material-kite-dusk' }));
  withBench((open) => ({ server, browser, bench } = open), { database: oneUndrawn });

  // The second server is not the one that the suite was given.
  afterAll(() => server?.stop());

  it('is begun in a Library that shows the pictures which come with the demo, and draws the one that lacks', async () => {
    const demo = DEMO_DOCUMENTS.filter(({ document }) => document.format === 'brelvin-material').map(({ document }) => document.name);
    await bench.openLibrary();
    const pictured = async (): Promise<number> =>
      bench.driver.executeScript(
        `return [...document.querySelectorAll('img.library-picture')].filter((each) => each.naturalWidth === 256).length;`,
      );
    await bench.driver.wait(async () => (await pictured()) >= demo.length - 1, 10_000, 'the pictures that came with the demo');
    const names = await Promise.all((await bench.all('.library-name')).map((each) => each.getText()));
    expect(names.sort()).toEqual(demo.sort());
    await bench.driver.wait(async () => (await pictured()) === demo.length, 60_000, 'the one that was not drawn yet');
    expect(await bench.text('.beginnings')).toMatch(/start one of your own:\s+plain\s+toon\s+metal and paint\s+glass\s+textured\s+code/);
  });

  it('stands lit on the Stage at once', async () => {
    await bench.press('New material');
    await bench.ready();
    seen = await bench.stagePixels();
    middle = { x: seen.width / 2, y: seen.height / 2 };
    expect(seen.brightness(middle.x, middle.y)).toBeGreaterThan(seen.brightness(8, 8) + 30);
    id = (await bench.driver.getCurrentUrl()).split('/').at(-1) ?? '';
    // Light from all around would blur the bands that are counted below.
    await bench.pick('Plain day', 'light rig', '.bench-bar');
    await bench.sharp();
  });

  it('gets bands by typing on the graph, and ribbons bring the colour in and the light to the dock', async () => {
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
  });

  it('shows six bands when the number is dragged, with each move of the hand, without a new program', async () => {
    const programs = await bench.compiledPrograms();
    const field = await bench.middle(await bench.number('bands', 'Bands'));
    await bench.dragWatching(...[-24, -16, 0, 16].map((dx) => ({ x: field.x + dx, y: field.y })));
    await bench.expectNumber('bands', 'Bands', 6);
    expect(await bench.settled(async () => (await bench.stagePixels()).bandCount(), 6))
      .withContext('bands after the drag')
      .toBe(6);
    expect(await bench.compiledPrograms()).toBe(programs);
  });

  it('takes a tint for its shade', async () => {
    const before = await bench.stagePixels();
    const shade = { x: Math.round(before.width * 0.8), y: before.height / 2 };
    await bench.click('[data-kind="bands"] .swatch[aria-label^="Tint, #"]');
    await bench.retype(await bench.see('.colour-picker #colour-hex'), '#3060c0');
    await bench.keys(Key.ESCAPE);
    seen = await bench.stagePixels();
    expect(difference(before.at(shade.x, shade.y), seen.at(shade.x, shade.y))).toBeGreaterThan(8);
    const [red, , blue] = seen.at(shade.x, shade.y);
    expect(blue).toBeGreaterThan(red);
  });

  it('has its bands on the side of the light, wherever that goes', async () => {
    expect(seen.brightness(middle.x - 130, middle.y)).toBeGreaterThan(seen.brightness(middle.x + 130, middle.y) + 20);
    await bench.dragLight(await bench.dialPlace(), { x: 0.66, y: 0 });
    seen = await bench.stagePixels();
    expect(seen.brightness(middle.x + 130, middle.y)).toBeGreaterThan(seen.brightness(middle.x - 130, middle.y) + 20);
  });

  it('is orbited: the picture goes on moving after the hand has let go, then rests', async () => {
    const stage = await bench.middle(await bench.see('.stage-canvas'));
    await bench.drag(stage, { x: stage.x - 60, y: stage.y + 20 }, { x: stage.x - 140, y: stage.y + 40 });
    const released = await bench.pictures();
    await bench.sharp();
    expect(await bench.pictures()).toBeGreaterThan(released);
    expect((await bench.dialPlace()).x).not.toBeCloseTo(0.66, 1);
  });

  it('is worn by a cube of more segments', async () => {
    await bench.press('mesh:');
    await bench.press('Cube', '.mesh-panel');
    const segments = await bench.see('.mesh-numbers [aria-label="Segments"]');
    await segments.click();
    await bench.keys('4*2', Key.ENTER);
    await bench.keys(Key.ESCAPE);
    expect(await bench.text('.mesh-bar')).toContain('cube');
    expect((await bench.stagePixels()).changedShare(seen)).toBeGreaterThan(0.05);
  });

  it('is taken back to the plain sphere, and done again', async () => {
    await bench.saved();
    for (let step = 0; step < 30; step++) await bench.undo();
    await bench.expectCards(2);
    expect(await bench.text('.mesh-bar')).toContain('sphere');
    for (let step = 0; step < 30; step++) await bench.redo();
    await bench.expectCards(3);
    await bench.expectNumber('bands', 'Bands', 6);
    expect(await bench.text('.mesh-bar')).toContain('cube');
  });

  it('is all there, and looks the same, after the server was stopped and started again', async () => {
    await bench.retype(await bench.see('.material-name'), 'Loft lantern');
    await bench.saved();
    // As it looks when it is opened afresh.
    await bench.openMaterial(id);
    const finished = await bench.stagePixels();
    expect(await server.stop()).toBe(0);
    server = await ServerProcess.startBuilt(database);
    bench = new Bench(browser, server.address);
    await bench.openLibrary();
    // The page before went on knocking at the closed door until it was left.
    const whileAway = await browser.consoleErrors();
    expect(whileAway.filter((each) => !each.includes('ERR_CONNECTION_REFUSED'))).toEqual([]);
    await bench.waitForText('.library-name', /^Loft lantern|\| Loft lantern/);
    await bench.click(`[data-material="${id}"] .library-open`);
    await bench.ready();
    await bench.expectNumber('bands', 'Bands', 6);
    expect(await bench.text('.mesh-bar')).toContain('cube');
    expect((await bench.stagePixels()).changedShare(finished))
      .withContext('the same picture')
      .toBeLessThan(0.01);
    await bench.expectConnected(await bench.dockInlet());
    expect(await browser.consoleErrors()).toEqual([]);
  });

  it('is checked by the command line, which makes GLSL of it', async () => {
    const folder = await mkdtemp(join(tmpdir(), 'brelvin-out-'));
    const file = join(folder, 'lantern.brelvin');
    writeFileSync(file, await (await fetch(`${server.address}/api/documents/${id}/file`)).text());
    const lines: string[] = [];
    const output = { out: (line: string) => void lines.push(line), err: (line: string) => void lines.push(line) };
    expect(await commandLine(['check', file], output)).toBe(0);
    expect(await commandLine(['emit', file, '--target', 'glsl', '--out', folder], output)).toBe(0);
    expect(readFileSync(join(folder, 'lantern.frag'), 'utf8')).toContain('bands(');
  });
});
