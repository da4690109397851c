import { Key } from 'selenium-webdriver';
import type { Bench } from '../support/bench';
import type { Browser } from '../support/browser';
import { withBench } from '../support/with-bench';

/** What the picture costs: estimated, measured, bounded. */
describe('The tab cost', () => {
  let bench: Bench;
  let browser: Browser;

  withBench((open) => ({ bench, browser } = open));

  afterEach(async () => {
    expect(await browser.consoleErrors()).toEqual([]);
  });

  const openCost = async (material: string): Promise<void> => {
    await bench.openMaterial(material);
    await bench.press('cost', '.panel-about');
    await bench.see('.cost-table');
  };
  const spent = async (): Promise<number> => Number(/all of it\s+([\d,]+)/.exec(await bench.text('.cost-table'))?.[1]?.replace(',', ''));

  it('tells what each node asks for, dearest first, shows it, and follows edits', async () => {
    await openCost('material-puppet-cheek');
    const rows = await bench.text('.cost-table');
    expect(rows.indexOf('Bands')).toBeLessThan(rows.indexOf('Rim'));
    const before = await spent();
    expect(before).toBeGreaterThan(100);
    await bench.addNode('fractalNoise', await bench.ground(330, 330));
    // What reaches no dock costs nothing.
    expect(await spent()).toBe(before);
    await bench.undo();
    await bench.press('Rim', '.cost-table');
    await bench.see('[data-kind="rim"].card-selected');
    await bench.choose('rim');
    await bench.keys(Key.DELETE);
    await bench.driver.wait(async () => (await spent()) < before, 20_000, 'the estimate never fell');
    await bench.undo();
    await bench.driver.wait(async () => (await spent()) === before, 20_000, 'the estimate never came back');
  });

  it('says on the cards what their nodes cost', async () => {
    await openCost('material-puppet-cheek');
    await bench.click('.cost-check input');
    const words = await bench.text('[data-kind="bands"] .card-cost');
    expect(Number(words)).toBeGreaterThan(100);
    await bench.click('.cost-check input');
    await bench.driver.wait(async () => (await bench.all('.card-cost')).length === 0, 20_000, 'cards go on');
  });

  it('measures the passes of the picture', async () => {
    await openCost('material-puppet-cheek');
    await bench.press('Measure', '.cost-panel');
    const words = await bench.waitForText('.cost-panel', /whole picture\s+[\d.]+ ms/);
    for (const pass of ['shadows', 'surfaces', 'view transform']) expect(words).toMatch(new RegExp(`${pass}\\s+[\\d.]+ ms`));
    expect(words).toContain('by waiting for each pass');
  });

  it('draws how the cost grows, and can be broken off', async () => {
    await openCost('material-tallow-seal');
    await bench.press('How it grows', '.cost-panel');
    await bench.press('Cancel', 'brelvin-notice-list');
    await bench.driver.wait(async () => (await bench.all('.notice')).length === 0, 60_000, 'it went on');
    await bench.press('How it grows', '.cost-panel');
    const chart = await bench.see('.growth-chart canvas');
    await bench.driver.wait(
      async () => /lights: 1, [\d.]+ ms; 2, .*; 4, .*; 8, [\d.]+ ms/.test((await chart.getAttribute('aria-label')) ?? ''),
      120_000,
      'not all was measured',
    );
    await bench.sharp();
  });

  it('keeps a budget for the workspace, which a check holds', async () => {
    await openCost('material-puppet-cheek');
    await bench.press('bound instructions', '.cost-bounds');
    await bench.waitForText('.cost-bounds', /instructions: kept/);
    await bench.click('.cost-bounds [role=spinbutton]');
    await bench.retype(await bench.see('.cost-bounds .number-input'), '50');
    await bench.waitForText('.cost-bounds', /instructions: over/);
    await bench.waitForText('.panel-about .panel-tabs', /checks \d/);
    await bench.press('checks', '.panel-about');
    await bench.waitForText('.panel-about', /\d+ instructions where 50 are allowed\./);
    // It holds in all of the workspace, also after a reload.
    await openCost('material-tallow-seal');
    await bench.waitForText('.cost-bounds', /instructions: over/);
    await bench.press('no bound', '.cost-bounds');
    await bench.waitForText('.cost-bounds', /bound instructions/);
  });

  it('names lines of code, and leads to them', async () => {
    await openCost('material-slate-of-tides');
    await bench.press('line 14', '.cost-table');
    await bench.see('.cm-content');
    expect(await bench.text('.cm-activeLineGutter')).toBe('14');
  });

  it('says beside each other what two materials ask for', async () => {
    await bench.openMaterial('material-puppet-cheek');
    await bench.press('compare', '.mesh-bar');
    await bench.pick('Tallow seal', 'material: choose', '.compare-panel');
    await bench.waitForText('.compare-numbers', /\d+ and \d+ instructions, 0 and \d+ reads/);
  });
});
