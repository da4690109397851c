import { DEMO_DOCUMENTS } from '@brelvin/core';
import { Key } from 'selenium-webdriver';
import type { ServerProcess } from '../../support/server-process';
import type { Bench } from '../support/bench';
import type { Browser } from '../support/browser';
import { withBench } from '../support/with-bench';

describe('Beginnings', () => {
  let server: ServerProcess;
  let browser: Browser;
  let bench: Bench;

  withBench((open) => ({ server, browser, bench } = open));

  it('are offered in the Library: toon stands in bands at once, a mesh of one’s own is asked for', async () => {
    await bench.openLibrary();
    await bench.press('start from', '.library-head');
    await bench.press('toon', '.menu');
    await bench.ready();
    expect((await bench.stagePixels()).bandCount()).toBeGreaterThan(1);
    await bench.openLibrary();
    await bench.press('start from', '.library-head');
    await bench.press('a mesh of your own', '.menu');
    await bench.ready();
    expect(await bench.text('.parts-list')).toContain('sphere');
    expect(await browser.consoleErrors()).toEqual([]);
  });

  it('are offered where a graph is empty, and are one step', async () => {
    await bench.press('graph', '.graph-bar');
    await (await bench.see('.graph-surface')).click();
    await bench.chord(Key.CONTROL, 'a');
    await bench.keys(Key.DELETE);
    await bench.expectCards(0);
    await bench.press('glass', '.empty-starters');
    await bench.expectCards(1);
    expect(await bench.text('[data-kind="physicalSurface"] .card-features')).toContain('transmission');
    await bench.undo();
    await bench.expectCards(0);
  });

  it('are all that an empty Library shows, each with what it is', async () => {
    for (const { id } of DEMO_DOCUMENTS.filter(({ document }) => document.format === 'brelvin-material'))
      await server.request('DELETE', `/documents/${id}`);
    const rest = (await server.request('GET', '/documents?kind=material')).body['documents'] as { id: string }[];
    for (const { id } of rest) await server.request('DELETE', `/documents/${id}`);
    await bench.openLibrary();
    expect(await bench.waitForText('.beginnings-empty', /No materials yet/)).toContain('refracts what is behind it');
    await bench.press('metal and paint', '.beginnings-empty');
    await bench.ready();
    expect(await bench.text('.about-material')).toContain('1 node');
  });
});
