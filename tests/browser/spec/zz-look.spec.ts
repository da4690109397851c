import type { Bench } from '../support/bench';
import type { Browser } from '../support/browser';
import { withBench } from '../support/with-bench';
describe('look', () => {
  let bench: Bench; let browser: Browser;
  withBench((open) => ({ bench, browser } = open), { device: (process.env['DEV'] as 'webgpu') ?? 'webgl2', pixelRatio: 1 });
  it('a', async () => {
    await bench.openMaterial('material-puppet-cheek');
    await bench.press('cost', '.panel-about');
    await bench.see('.cost-table');
    await browser.picture('/tmp/l1.png');
    await bench.press('Measure', '.cost-panel');
    await bench.waitForText('.cost-panel', /whole picture/);
    await bench.click('.cost-check input');
    await bench.see('.card-cost');
    await browser.picture('/tmp/l2.png');
    await bench.press('How it grows', '.cost-panel');
    await bench.see('.growth-chart canvas');
    await bench.driver.sleep(2000);
    await bench.driver.wait(async () => (await bench.all('.notice')).length === 0, 120000);
    const t = await bench.see('.growth-chart'); await bench.driver.executeScript('arguments[0].scrollIntoView()', t);
    await bench.driver.sleep(500);
    await browser.picture('/tmp/l3.png');
    console.log(await t.findElement({css:'canvas'}).getAttribute('aria-label'));
    console.log(await browser.consoleErrors());
  }, 300000);
});
