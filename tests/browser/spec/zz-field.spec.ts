import { Key } from 'selenium-webdriver';
import type { ServerProcess } from '../../support/server-process';
import type { Bench } from '../support/bench';
import type { Browser } from '../support/browser';
import { withBench } from '../support/with-bench';
describe('zz', () => {
  let browser: Browser; let bench: Bench; let server: ServerProcess;
  withBench((open) => ({ server, browser, bench } = open), { pixelRatio: 1 });
  it('field', async () => {
    await bench.openMaterial('material-burner-brass');
    await bench.press('mesh:');
    await bench.press('Field', '.mesh-panel');
    await bench.ready();
    await browser.picture('/tmp/p1.png');
    await bench.keys(Key.ESCAPE);
    await bench.press('parts', '.graph-bar');
    await bench.ready();
    await browser.picture('/tmp/p2.png');
    console.log(await browser.consoleErrors());
    void server;
  });
});
