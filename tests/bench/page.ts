import { build } from 'esbuild';
import { createServer, type Server } from 'node:http';
import { fileURLToPath } from 'node:url';
import { Browser } from '../browser/support/browser';
import type { FrameFigures } from './frames';
import { spread } from './measure';
import type { Report } from './report';

/** Runs what a page does in a real page, and reports it. */
export async function benchPage(report: Report): Promise<void> {
  const bundle = await build({
    entryPoints: [fileURLToPath(new URL('./frames.ts', import.meta.url))],
    bundle: true,
    format: 'iife',
    globalName: 'frames',
    write: false,
    alias: {
      '@brelvin/core': fileURLToPath(new URL('../../packages/core/src/index.ts', import.meta.url)),
      '@brelvin/devices': fileURLToPath(new URL('../../packages/devices/src/index.ts', import.meta.url)),
    },
  });
  const server = await serve(bundle.outputFiles[0]?.text ?? '');
  const browser = await Browser.open();
  try {
    const address = server.address();
    if (typeof address !== 'object' || !address) throw new Error('the page has no address');
    await browser.driver.manage().setTimeouts({ script: 240_000 });
    await browser.driver.get(`http://127.0.0.1:${address.port}/`);
    const figures = await browser.driver.executeAsyncScript<FrameFigures>(
      'frames.run().then(arguments[0], (error) => arguments[0]({ error: String(error && error.stack) }))',
    );
    if (figures.error) throw new Error(figures.error);
    const { growth, compile, changes } = figures.core;
    report.bound('compile time, 5,000 / 500 nodes', growth, 11);
    report.figure('compiling 2,000 nodes, off the main thread, ms', spread(compile));
    report.bound('a changed number at 200 nodes, our share of the main thread, ms', spread(changes), 1);
    for (const { name, ratios, milliseconds } of figures.pairs) {
      report.bound(`frame 512 × 512, generated / hand-written ${name}`, spread(ratios), 1.05);
      report.figure(`that frame, generated, ms`, spread(milliseconds));
    }
    for (const { lights, milliseconds } of figures.byLights)
      report.figure(`frame 512 × 512, Blinn-Phong, ${lights}, ms`, spread(milliseconds));
    report.bound('our share of structure changed → new picture, 200 nodes', spread(figures.compileShare), 0.1);
    report.bound('picture after a changed number / the frame alone', spread(figures.changedOverAlone), 1.2);
  } finally {
    await browser.close();
    server.close();
  }
}

async function serve(script: string): Promise<Server> {
  const server = createServer((request, response) => {
    const isScript = request.url === '/frames.js';
    response.setHeader('content-type', isScript ? 'text/javascript' : 'text/html');
    response.end(isScript ? script : '<!doctype html><title>frames</title><script src="frames.js"></script>');
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  return server;
}
