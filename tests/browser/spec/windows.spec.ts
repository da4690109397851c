import type { Material } from '@brelvin/contract';
import { Key } from 'selenium-webdriver';
import { newMaterial } from '@brelvin/core';
import { PLAIN_RIG } from '../../support/seeded-database';
import type { ServerProcess } from '../../support/server-process';
import { Bench } from '../support/bench';
import { Browser } from '../support/browser';
import { withBench } from '../support/with-bench';

/** Two windows on one material, and what a reload keeps. */
describe('Windows', () => {
  let server: ServerProcess;
  let browsers: Browser[];
  let one: Bench;
  let two: Bench;

  withBench((open) => {
    browsers = [open.browser];
    ({ server, bench: one } = open);
  });

  beforeAll(async () => {
    const second = await Browser.open();
    browsers.push(second);
    two = new Bench(second, server.address);
  });

  afterAll(() => browsers?.[1]?.close());

  const fresh = (): Promise<string> => server.keep(newMaterial('Windows', { set: 'set-plain-sphere', rig: PLAIN_RIG }));
  const stored = (id: string): Promise<Material> => server.stored(id);

  it('follow each other live, and never overwrite silently', async () => {
    const id = await fresh();
    await one.openMaterial(id);
    await two.openMaterial(id);
    await one.addNode('bands', await one.ground(420, 380));
    await two.see('[data-kind="bands"]');
    // Both work at the same moment, where neither's node comes under the other's hand: both edits stay.
    await Promise.all([one.addNode('rim', await one.ground(60, 420)), two.addNode('sine', await two.ground(60, 60))]);
    await one.see('[data-kind="sine"]');
    await two.see('[data-kind="rim"]');
    await one.saved();
    await two.saved();
    expect(
      Object.values((await stored(id)).surface.nodes)
        .map((node) => node.kind)
        .sort(),
    ).toEqual(['bands', 'colour', 'lambert', 'rim', 'sine']);
    // One takes back its own step, not the other's.
    await one.undo();
    await two.driver.wait(async () => (await two.all('[data-kind="rim"]')).length === 0, 10_000);
    await two.expectCards(4);
  });

  it('are told in the Library what others did to the shelf, and show it when asked', async () => {
    const id = await fresh();
    await one.openLibrary();
    await one.see(`[data-material="${id}"]`);
    await two.openLibrary();
    const card = `[data-material="${id}"]`;
    await two.press('Delete', card);
    await one.waitForText('.library-stale', /changed elsewhere/);
    expect((await one.all(card)).length)
      .withContext('nothing moves by itself')
      .toBe(1);
    await one.press('show anew');
    await one.driver.wait(async () => (await one.all(card)).length === 0, 10_000);
    expect((await one.all('.library-stale')).length).toBe(0);
    await two.press('Undo', '.toast');
    await one.waitForText('.library-stale', /changed elsewhere/);
    await one.press('show anew');
    await one.see(card);
  });

  it('keep steps and undo after a reload, go anywhere in the history, and restore a version by its name', async () => {
    const id = await fresh();
    // What two windows said of each other's document belongs to them.
    await browsers[0]!.consoleErrors();
    await one.openMaterial(id);
    await one.addNode('bands', await one.ground(420, 380));
    await one.press('history', '.panel-tabs');
    await (await one.see('.history-keep input')).sendKeys('with bands', Key.ENTER);
    await one.waitForText('.history-version', /with bands/);
    await one.addNode('rim', await one.ground(60, 420));
    await one.saved();
    await one.openMaterial(id);
    await one.press('history', '.panel-tabs');
    await one.waitForText('.history-steps', /Add Rim[\s\S]*Add Bands[\s\S]*Start/);
    await one.press('Start', '.history-steps');
    await one.expectCards(2);
    await one.press('Add Rim', '.history-steps');
    await one.expectCards(4);
    await one.undo();
    await one.expectCards(3);
    await one.addNode('sine', await one.ground(60, 420));
    await one.press('Restore with bands', '.history-versions');
    await one.expectCards(3);
    await one.see('[data-kind="bands"]');
    await one.undo();
    await one.see('[data-kind="sine"]');
    expect(await browsers[0]!.consoleErrors()).toEqual([]);
  });
});
