import { seededDatabase } from '../support/seeded-database';
import { ServerProcess } from '../support/server-process';
import { Bench } from '../browser/support/bench';
import { ALL_PIXELS, Browser } from '../browser/support/browser';
import { PATIENCE, spread } from './measure';
import type { Report } from './report';

/** What a browser that was never here fetches and waits for, until the first picture of a material stands. */
export async function benchOpening(report: Report): Promise<void> {
  const server = await ServerProcess.startBuilt(await seededDatabase());
  const times: number[] = [];
  const fetched: { readonly page: number[]; readonly workers: number[] } = { page: [], workers: [] };
  try {
    for (let turn = 0; turn < 3; turn++) {
      const browser = await Browser.open(ALL_PIXELS);
      try {
        const bench = new Bench(browser, server.address, PATIENCE);
        const started = performance.now();
        await browser.driver.get(`${server.address}/bench/material-puppet-cheek`);
        await bench.see('.stage-canvas[data-painted="true"]');
        times.push(performance.now() - started);
        const found = await browser.driver.executeScript<[string, number][]>(
          `return performance.getEntriesByType('resource').map(({ name, encodedBodySize }) => [name, encodedBodySize]);`,
        );
        const kibibytes = (pattern: RegExp): number =>
          found.reduce((sum, [name, bytes]) => sum + (pattern.test(name) ? bytes / 1024 : 0), 0);
        fetched.page.push(kibibytes(/\/(chunk|main|styles)-\w+\.(js|css)$/));
        fetched.workers.push(kibibytes(/\/worker-\w+\.js$/));
      } finally {
        await browser.close();
      }
    }
  } finally {
    await server.stop();
  }
  // An eighth of it is the library's text, which is the nodes' help, too; a tenth the front ends of both languages.
  report.bound('the page of the first view of the Bench, KiB as it is sent', spread(fetched.page), 450);
  report.figure('its workers, which come beside, KiB as they are sent', spread(fetched.workers));
  report.figure('the first view of the Bench, from address to picture, ms', spread(times));
}
