import { seededDatabase } from '../../support/seeded-database';
import { ServerProcess } from '../../support/server-process';
import { Bench } from './bench';
import { Browser } from './browser';

export interface OpenBench {
  readonly server: ServerProcess;
  readonly browser: Browser;
  readonly bench: Bench;
}

/** Gives a suite a server on a database of its own and a page to use it, and ends both after it. */
export function withBench(use: (open: OpenBench) => void): void {
  let server: ServerProcess | undefined;
  let browser: Browser | undefined;

  beforeAll(async () => {
    server = await ServerProcess.start(await seededDatabase());
    browser = await Browser.open();
    use({ server, browser, bench: new Bench(browser.driver, server.address) });
  });

  afterAll(async () => {
    await browser?.close();
    await server?.stop();
  });
}
