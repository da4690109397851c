import { seededDatabase } from '../../support/seeded-database';
import { ServerProcess } from '../../support/server-process';
import { Bench } from './bench';
import { Browser, type BrowserDevice } from './browser';

export interface OpenBench {
  readonly server: ServerProcess;
  readonly browser: Browser;
  readonly bench: Bench;
}

export interface BenchNeeds {
  /** A database with the demo in it when absent. */
  readonly database?: () => Promise<string>;
  /** Of the server, by the names of its environment. */
  readonly settings?: Readonly<Record<string, string>>;
  /** Device pixels for each CSS pixel. */
  readonly pixelRatio?: number;
  readonly device?: BrowserDevice;
}

/** Gives a suite a server on a database of its own, as it runs for its users, and a page to use it; ends both after it. */
export function withBench(
  use: (open: OpenBench) => void,
  { database = seededDatabase, settings, pixelRatio, device }: BenchNeeds = {},
): void {
  let server: ServerProcess | undefined;
  let browser: Browser | undefined;

  beforeAll(async () => {
    server = await ServerProcess.start(await database(), 0, settings, 'built');
    browser = await Browser.open(pixelRatio, device);
    use({ server, browser, bench: new Bench(browser, server.address) });
  });

  afterAll(async () => {
    await browser?.close();
    await server?.stop();
  });
}
