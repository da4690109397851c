import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Material } from '@brelvin/contract';
import { By, Key } from 'selenium-webdriver';
import { DEMO_DOCUMENTS, EMPTY_GRAPH, newMaterial, newRig } from '@brelvin/core';
import { PLAIN_RIG } from '../../support/seeded-database';
import { Cluster, clusterFolder } from '../../../scripts/lib/postgres.mjs';
import type { ServerProcess } from '../../support/server-process';
import type { Bench } from '../support/bench';
import type { Browser } from '../support/browser';
import { withBench } from '../support/with-bench';

/** What goes wrong is said where one is; nothing is lost, and the rest goes on. */
describe('Trouble', () => {
  let cluster: Cluster;
  let server: ServerProcess;
  let browser: Browser;
  let bench: Bench;

  withBench((open) => ({ server, browser, bench } = open), {
    database: () => {
      cluster = new Cluster(clusterFolder('trouble-postgres'), { throwaway: true });
      return cluster.start();
    },
  });

  beforeAll(() => server.keep(newRig('Plain day'), PLAIN_RIG));
  afterAll(() => cluster?.remove());

  const fresh = (change: Partial<Material> = {}): Promise<string> =>
    server.keep({ ...newMaterial('Trouble', { set: 'set-plain-sphere', rig: PLAIN_RIG }), ...change });

  it('refuses a ribbon that would run in a circle, and shows the path', async () => {
    await bench.openMaterial(await fresh());
    await bench.addNode('add', await bench.ground(60, 330));
    await bench.addNode('sine', await bench.ground(330, 330));
    await bench.connect(await bench.outlet('add'), await bench.inlet('sine', 'a'));
    await bench.connect(await bench.outlet('sine'), await bench.inlet('add', 'a'));
    expect(await bench.text('.graph-refusal')).toBe('This would run in a circle: Add → Sine → Add.');
    await bench.expectConnected(await bench.inlet('add', 'a'), false);
  });

  it('refuses a ribbon that does not fit, and says what to put between', async () => {
    await bench.openMaterial(await fresh());
    await bench.addNode('uv', await bench.ground(60, 330));
    await bench.addNode('rim', await bench.ground(330, 300));
    await bench.connect(await bench.outlet('uv'), await bench.inlet('rim', 'strength'));
    expect(await bench.text('.graph-refusal')).toContain('Put Split or Length between');
  });

  it('finds only what fits when a ribbon is dropped in the void, and connects it', async () => {
    await bench.openMaterial(await fresh());
    const start = await bench.middle(await bench.outlet('lambert'));
    const end = await bench.ground(300, 380);
    await bench.drag(start, { x: start.x + 20, y: start.y + 60 }, end);
    await bench.see('.finder');
    await bench.keys('mult');
    await bench.keys(Key.ENTER);
    await bench.expectConnected(await bench.inlet('multiply', 'a'));
    await bench.undo();
    await bench.expectCards(2);
  });

  it('takes a ribbon off by dragging it from its inlet into the void', async () => {
    await bench.openMaterial(await fresh());
    const inlet = await bench.inlet('lambert', 'base');
    const at = await bench.middle(inlet);
    await bench.drag(at, { x: at.x - 30, y: at.y + 80 }, { x: at.x - 40, y: at.y + 160 });
    await bench.expectConnected(inlet, false);
    expect((await bench.all('.finder')).length).toBe(0);
  });

  it('connects by keyboard alone', async () => {
    await bench.openMaterial(await fresh());
    await bench.addNode('bands', await bench.ground(330, 330));
    for (const port of [await bench.outlet('bands'), await bench.dockInlet()]) {
      await bench.driver.executeScript('arguments[0].focus()', port);
      await bench.keys(Key.ENTER);
    }
    await bench.waitForText('.panel-about', /flat steps/);
    const label = await (await bench.dockInlet()).getAttribute('aria-label');
    expect(label).toContain('connected');
    await bench.saved();
  });

  it('deletes by key, and takes the deletion back', async () => {
    await bench.openMaterial(await fresh());
    await (await (await bench.card('lambert')).findElement(By.css('.card-name'))).click();
    await bench.keys(Key.DELETE);
    await bench.expectCards(1);
    await bench.undo();
    await bench.expectCards(2);
    await bench.expectConnected(await bench.dockInlet());
  });

  it('says that a material was deleted in another window, keeps the edits, and saves them once it is restored', async () => {
    const id = await fresh();
    await bench.openMaterial(id);
    await server.request('DELETE', `/documents/${id}`);
    await bench.addNode('rim', await bench.ground(330, 330));
    await bench.waitForText('.save-state', /"Trouble" was deleted/);
    await bench.press('Restore');
    await bench.saved();
    const { body } = await server.request('GET', `/documents/${id}`);
    expect(Object.keys((body['document'] as Material).surface.nodes).length).toBe(3);
  });

  it('puts edits on top of those of another window that it could not hear of, and says so', async () => {
    const id = await fresh();
    // Deaf: what the server tells does not arrive.
    const hearAgain = await browser.beforePages('window.WebSocket = class { send() {} close() {} };');
    await bench.openMaterial(id);
    await server.request('POST', `/documents/${id}/steps`, {
      after: 0,
      steps: [{ id: 'other', label: 'Notes', changes: [{ path: ['notes'], value: 'theirs' }] }],
    });
    await bench.addNode('rim', await bench.ground(330, 330));
    await bench.waitForText('.toast', /changed in another window; your edits are on top/);
    await bench.saved();
    const { body } = await server.request('GET', `/documents/${id}`);
    const document = body['document'] as Material;
    expect([document.notes, Object.keys(document.surface.nodes).length]).toEqual(['theirs', 3]);
    await hearAgain();
  });

  it('keeps the last good picture, marked, when a material does not compile any more', async () => {
    const id = await fresh();
    await bench.openMaterial(id);
    const before = await bench.stagePixels();
    const nose = { kind: 'nose', rev: 1, x: 60, y: 330, values: {} };
    await server.request('POST', `/documents/${id}/steps`, {
      after: 0,
      steps: [{ id: 'other', label: 'Nose', changes: [{ path: ['surface', 'nodes', 'nose'], value: nose }] }],
    });
    await bench.addNode('rim', await bench.ground(430, 330));
    await bench.waitForText('.stage-notice', /Last good picture\. There is no kind of node called "nose"/);
    await bench.see('[data-kind="nose"] .card-problem');
    await bench.waitForText('.panel-about', /no kind of node called "nose"/);
    const kept = await bench.stagePixels();
    expect(kept.brightness(kept.width / 2, kept.height / 2)).toBeCloseTo(before.brightness(before.width / 2, before.height / 2), -1);
    await (await (await bench.card('nose')).findElement(By.css('.card-name'))).click();
    await bench.keys(Key.DELETE);
    await bench.driver.wait(async () => (await bench.all('.stage-notice')).length === 0, 60_000, 'the notice goes');
  });

  it('shows a hatched mesh when there never was a picture, and goes on working', async () => {
    const id = await fresh({ surface: { ...EMPTY_GRAPH, nodes: { odd: { kind: 'bandz', rev: 1, x: 100, y: 100, values: {} } } } });
    await bench.driver.get(`${server.address}/bench/${id}`);
    await bench.waitForText('.stage-notice', /Not ready\. There is no kind of node called "bandz"\. The nearest is "bands"/);
    const pixels = await bench.stagePixels();
    const row = Array.from({ length: 40 }, (_, step) => Math.round(pixels.brightness(220 + step, pixels.height / 2)));
    expect(Math.max(...row) - Math.min(...row)).toBeGreaterThan(20);
    await (await (await bench.card('bandz')).findElement(By.css('.card-name'))).click();
    await bench.keys(Key.DELETE);
    await bench.ready();
  });

  it('comes back by itself after the graphics context was lost', async () => {
    // A machine that is busy may draw it small for a moment, and says so: only whole pictures are compared.
    const whole = (): Promise<unknown> =>
      bench.driver.wait(async () => (await bench.all('.stage-notice')).length === 0, 60_000, 'a whole picture, without a notice');
    await bench.openMaterial('material-puppet-cheek');
    await whole();
    const before = await bench.stagePixels();
    await bench.driver.executeScript(`
      const context = document.querySelector('.stage-canvas canvas').getContext('webgl2');
      window.lost = context.getExtension('WEBGL_lose_context');
      window.lost.loseContext();`);
    await bench.waitForText('.stage-notice', /device was lost/);
    await bench.driver.executeScript('window.lost.restoreContext()');
    await whole();
    await bench.ready();
    await whole();
    const after = await bench.stagePixels();
    expect(after.changedShare(before)).toBeLessThan(0.01);
  });

  it('says so while PostgreSQL is away, keeps the edits, and saves when it is back', async () => {
    const id = await fresh();
    await bench.openMaterial(id);
    cluster.stop('fast');
    await bench.addNode('rim', await bench.ground(330, 330));
    await bench.waitForText('.save-state', /Not saved: The database cannot be reached.*Trying again/);
    await bench.addNode('sine', await bench.ground(60, 330));
    await bench.expectCards(4);
    cluster.launch();
    await bench.saved();
    await bench.openMaterial(id);
    await bench.expectCards(4);
  });

  it('keeps edits that were never saved when the page is left, offers them on the next visit, and puts them in again', async () => {
    const id = await fresh();
    await bench.openMaterial(id);
    cluster.stop('fast');
    await bench.addNode('rim', await bench.ground(330, 330));
    await bench.waitForText('.save-state', /Not saved/);
    // A name that is still being typed goes into the journal too.
    await (await bench.see('.material-name')).click();
    await bench.chord(Key.CONTROL, 'a');
    await bench.keys('Trouble at the quay');
    await bench.driver.get('about:blank');
    cluster.launch();
    await bench.openLibrary();
    await bench.waitForText('.notice', /“Trouble” has edits that were never saved/);
    await bench.press('Open it', '.notice');
    await bench.ready();
    await bench.waitForText('.notice', /2 edits of “Trouble” were never saved .*Add Rim, Rename/);
    await bench.expectCards(2);
    await bench.press('Put in again', '.notice');
    await bench.expectCards(3);
    await bench.saved();
    await bench.openMaterial(id);
    await bench.expectCards(3);
    expect(await (await bench.see('.material-name')).getAttribute('value')).toBe('Trouble at the quay');
    expect((await bench.all('.notice')).length)
      .withContext('nothing is left to offer')
      .toBe(0);
  });

  it('says what is wrong with a file that is taken in, and takes a good one', async () => {
    await bench.openLibrary();
    const folder = mkdtempSync(join(tmpdir(), 'brelvin-in-'));
    const good = JSON.stringify({ ...(DEMO_DOCUMENTS.at(-1)!.document as Material), name: 'Taken in' });
    const files: readonly (readonly [string, RegExp])[] = [
      [good.slice(0, 200), /cut off/],
      [good.replace('"version":2', '"version":12'), /version 12.*newer Brelvin/],
      ['<html>', /not a Brelvin document/],
    ];
    for (const [content, words] of files) {
      const path = join(folder, `file${words.source.length}.brelvin`);
      writeFileSync(path, content);
      await (await bench.see('input[type="file"]')).sendKeys(path);
      await bench.waitForText('.notice', words);
    }
    writeFileSync(join(folder, 'good.brelvin'), good);
    await (await bench.see('input[type="file"]')).sendKeys(join(folder, 'good.brelvin'));
    const names = await bench.waitForText('.library-name', /Taken in/);
    expect(names.match(/Taken in/g)?.length)
      .withContext('only the good one')
      .toBe(1);
  });

  it('says on the Stage when an image cannot be had, and shows it when it comes', async () => {
    // The demo knows its images by other addresses than the server.
    const seal = await server.stored<Material>('material-tallow-seal');
    const id = await fresh({ ...seal, seenIn: { set: 'set-plain-sphere', rig: PLAIN_RIG } });
    await browser.block(['*/api/assets/*']);
    await bench.driver.get(`${server.address}/bench/${id}`);
    await bench.waitForText('.stage-notice', /The image “.+” cannot be had: a grey check stands in its place\. .+ It is asked for again\./);
    const checked = await bench.pixelsNow();
    await browser.block([]);
    await bench.driver.wait(async () => (await bench.all('.stage-notice')).length === 0, 60_000, 'it is asked for again');
    expect((await bench.stagePixels()).changedShare(checked))
      .withContext('the image in place of the check')
      .toBeGreaterThan(0.02);
  });

  it('leads back to the Library from an address without a material', async () => {
    await bench.driver.get(`${server.address}/bench/nobody`);
    await bench.waitForText('.page-failure', /There is no document nobody/);
    await bench.press('To the Library');
    await bench.see('.library-list');
    expect(await bench.driver.getCurrentUrl()).toBe(`${server.address}/`);
  });

  it('reads nonsense typed into a number as an error at the field', async () => {
    await bench.openMaterial(await fresh());
    await bench.addNode('bands', await bench.ground(330, 330));
    await (await bench.number('bands', 'Bands')).click();
    await bench.keys('many', Key.ENTER);
    await bench.waitForText('.number-error', /"many" is no number/);
    const error = await bench.see('.number-error');
    const [words, ground] = [await error.getCssValue('color'), await error.getCssValue('background-color')].map(brightness);
    expect(Math.abs(words! - ground!))
      .withContext('words that can be read on a card that is chosen')
      .toBeGreaterThan(100);
    await bench.keys(Key.ESCAPE);
    await bench.expectNumber('bands', 'Bands', 3);
  });
});

/** Of a CSS colour in grey, 0…255. */
function brightness(colour: string): number {
  return Number(/\d+/.exec(colour)?.[0] ?? NaN);
}
