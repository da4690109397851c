import { build } from 'esbuild';
import { createServer, type Server } from 'node:http';
import { fileURLToPath } from 'node:url';
import { ALL_PIXELS, Browser, type BrowserDevice } from '../browser/support/browser';

/**
 * Runs the export `run` of a module in a real page, with core and devices bundled into it, and gives back what it
 * comes to.
 *
 * @param entry path of the module
 * @param device what the browser can draw with besides WebGL2
 * @throws Error with the page's words when it fails
 */
export async function runInPage<T extends object>(entry: string, device: BrowserDevice = 'webgl2'): Promise<T> {
  const source = (path: string): string => fileURLToPath(new URL(`../../packages/${path}/src/index.ts`, import.meta.url));
  const bundle = await build({
    entryPoints: [entry],
    bundle: true,
    format: 'iife',
    globalName: 'page',
    write: false,
    alias: { '@brelvin/contract': source('contract'), '@brelvin/core': source('core'), '@brelvin/devices': source('devices') },
  });
  const server = await serve(bundle.outputFiles[0]?.text ?? '');
  const browser = await Browser.open(ALL_PIXELS, device);
  try {
    const address = server.address();
    if (typeof address !== 'object' || !address) throw new Error('the page has no address');
    await browser.driver.manage().setTimeouts({ script: 900_000 });
    await browser.driver.get(`http://127.0.0.1:${address.port}/`);
    const result = await browser.driver.executeAsyncScript<T & { readonly error?: string }>(
      'page.run().then(arguments[0], (error) => arguments[0]({ error: String(error && error.stack) }))',
    );
    if (result.error) throw new Error(result.error);
    return result;
  } finally {
    await browser.close();
    server.close();
  }
}

async function serve(script: string): Promise<Server> {
  const server = createServer((request, response) => {
    const isScript = request.url === '/page.js';
    response.setHeader('content-type', isScript ? 'text/javascript' : 'text/html');
    response.end(isScript ? script : '<!doctype html><title>page</title><script src="page.js"></script>');
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  return server;
}
