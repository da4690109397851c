import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { fileURLToPath } from 'node:url';
import { seededDatabase } from '../../support/seeded-database';
import type { Bench } from '../support/bench';
import type { Browser } from '../support/browser';
import { withBench } from '../support/with-bench';

const ROOT = fileURLToPath(new URL('../../../', import.meta.url));

/** Pictures that workers draw, asked for and seen in pages. */
describe('Jobs', () => {
  let bench: Bench;
  let browser: Browser;
  let url = '';
  let worker: ChildProcess | undefined;

  const database = async (): Promise<string> => (url = await seededDatabase());
  withBench((open) => ({ bench, browser } = open), { database });

  afterAll(async () => {
    if (!worker) return;
    const ended = once(worker, 'exit');
    worker.kill('SIGTERM');
    await ended;
  });

  afterEach(async () => {
    expect(await browser.consoleErrors()).toEqual([]);
  });

  const ask = async (material: string): Promise<void> => {
    await bench.openMaterial(material);
    await bench.press('view', 'brelvin-view-menu');
    for (const [side, pixels] of [
      ['Width', '160'],
      ['Height', '120'],
    ]) {
      await bench.click(`[aria-label="${side} of the still"]`);
      await bench.retype(await bench.see(`input[aria-label="${side} of the still"]`), pixels ?? '');
    }
    await bench.press('have a worker draw it', '.still-fields');
  };

  it('are none at first, and the page says how one asks', async () => {
    await bench.openLibrary();
    await bench.press('jobs', '.bench-bar');
    await bench.waitForText('.jobs-body', /Nothing was asked for yet\. On the Bench, view → Still/);
    await bench.waitForText('.bench-bar', /No worker draws\./);
  });

  it('wait where no worker draws, and can be given up', async () => {
    await ask('material-puppet-cheek');
    await bench.waitForText('brelvin-notice-list', /No worker draws now; the first one that comes draws “Puppet cheek”/);
    await bench.press('Show the jobs', 'brelvin-notice-list');
    await bench.waitForText('.job', /Puppet cheek\s+waits for a worker/);
    await bench.press('Give up Puppet cheek', '.job');
    await bench.waitForText('.job', /given up/);
  });

  it('are drawn by a worker, from where the picture is seen, and shown when they are done', async () => {
    worker = spawn(process.execPath, ['apps/server/dist/worker.js'], {
      cwd: ROOT,
      stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
      env: { ...process.env, DATABASE_URL: url, LOG_LEVEL: 'fatal' },
    });
    await once(worker, 'message');
    await ask('material-tallow-seal');
    await bench.waitForText('brelvin-notice-list', /A worker draws “Tallow seal”, \d+ × 120\./);
    await bench.press('Show the jobs', 'brelvin-notice-list');
    await bench.waitForText('.job[data-state="done"]', /Tallow seal\s+done/);
    const picture = await bench.see('.job[data-state="done"] img');
    await bench.driver.wait(
      async () =>
        (await bench.driver.executeScript('return arguments[0].naturalWidth + "x" + arguments[0].naturalHeight', picture)) === '108x120',
      20_000,
      'the picture never came',
    );
    await bench.waitForText('.bench-bar', /One worker draws\./);
  });
});
