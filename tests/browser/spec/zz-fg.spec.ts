import type { Bench } from '../support/bench';
import type { Browser } from '../support/browser';
import { withBench } from '../support/with-bench';
describe('zz', () => {
  let browser: Browser;
  let bench: Bench;
  withBench((open) => ({ browser, bench } = open), { pixelRatio: 1 });
  it('pictures', async () => {
    await bench.openLibrary();
    await bench.press('Fields', '.library-head');
    await bench.press('New field');
    await bench.ready();
    await new Promise((r) => setTimeout(r, 4000));
    await browser.picture('/tmp/p1.png');
    await bench.addNode('box field', { x: 300, y: 480 });
    await new Promise((r) => setTimeout(r, 1500));
    await browser.picture('/tmp/p2.png');
    await bench.openLibrary();
    await bench.press('Fields', '.library-head');
    await new Promise((r) => setTimeout(r, 8000));
    await browser.picture('/tmp/p3.png');
    console.log(await browser.consoleErrors());
  });
});
