import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Material } from '@brelvin/contract';
import { Key } from 'selenium-webdriver';
import { newMaterial, newSet } from '@brelvin/core';
import type { ServerProcess } from '../../support/server-process';
import type { Bench } from '../support/bench';
import type { Browser } from '../support/browser';
import { pngFile } from '../support/map-files';
import { kiteGlb } from '../support/mesh-files';
import { withBench } from '../support/with-bench';

/** Files in and out, and names: nothing is lost on the way, and what came is said. */
describe('Files and names', () => {
  let server: ServerProcess;
  let browser: Browser;
  let bench: Bench;

  withBench((open) => ({ server, browser, bench } = open));

  const type = (...keys: string[]): Promise<void> => bench.keys(...keys);

  it('in the Library are written at once, sent once, and found by a tag', async () => {
    await server.request('POST', '/documents', { id: 'oar', document: newMaterial('Oar') });
    await bench.openLibrary();
    await bench.click('[aria-label="Oar"] .library-name');
    // What is typed goes into the field that has come, without a press into it.
    await type('Long oar', Key.ENTER);
    await bench.waitForText('.library-name', /Long oar/);
    await bench.click('[aria-label="Long oar"] .library-tagline');
    await type('driftwood', Key.ENTER);
    await bench.waitForText('.library-tagline', /driftwood/);
    expect((await bench.all('.toast')).length)
      .withContext('nothing was refused')
      .toBe(0);
    await bench.click('input[type="search"]');
    await type('drift');
    await bench.settled(async () => (await bench.all('.library-name')).length, 1);
    expect(await bench.text('.library-name')).toBe('Long oar');
  });

  it('go out with all that is seen, come in under ids of their own, and are opened from what is said', async () => {
    const set = { ...newSet('Pier'), floor: { shown: true, height: -1, size: 12 } };
    await server.request('POST', '/documents', { id: 'pier', document: set });
    const document: Material = newMaterial('Mooring', { set: 'pier', rig: 'rig-dusk-quay' });
    await server.request('POST', '/documents', { id: 'mooring', document });
    await bench.openMaterial('mooring');
    await bench.press('export', '.bench-bar');
    await bench.waitForText('.menu', /this material only\s+with its set and light rig\s+the set “Pier”\s+the light rig “Dusk quay”/);
    await type(Key.ESCAPE);
    const file = await fetch(`${server.address}/api/documents/mooring/file?with=stage`);
    const path = join(mkdtempSync(join(tmpdir(), 'brelvin-file-')), 'mooring.brelvin');
    writeFileSync(path, Buffer.from(await file.arrayBuffer()));
    await bench.openLibrary();
    await (await bench.see('input[type="file"]')).sendKeys(path);
    await bench.waitForText('.notice', /The material “Mooring” is in the Library, under Materials, with 1 set, 1 light rig, 1 file\./);
    await bench.press('Open', '.notice');
    await bench.ready();
    expect(await bench.driver.getCurrentUrl()).not.toContain('/bench/mooring');
    expect(await bench.text('.bench-bar')).toContain('Pier');
    expect(await bench.text('.bench-bar')).toContain('Dusk quay');
  });

  it('dropped where nothing asks for them are taken to where they belong, or refused in words', async () => {
    await bench.openMaterial('mooring');
    const bar = await bench.see('.bench-bar');
    await bench.dropFiles(bar, [{ name: 'notes.txt', type: 'text/plain', content: Buffer.from('low tide at six') }]);
    await bench.waitForText('.notice', /“notes\.txt” was not imported\. Brelvin imports images/);
    const cards = await bench.cardCount();
    await bench.dropFiles(await bench.see('.panel-about'), [pngFile('knot.png', (u) => [u, 0.5, 0.2])]);
    await bench.settled(() => bench.cardCount(), cards + 1);
    // A mesh on the graph is a mesh; of two, both come.
    const kite = await kiteGlb();
    await bench.dropFiles(await bench.see('.graph-surface'), [kite, { ...kite, name: 'second.glb' }]);
    await bench.waitForText('.notice', /kite\.glb: 3 parts[\s\S]*second\.glb: 3 parts/);
    expect(await bench.driver.getCurrentUrl()).toContain('/bench/');
    expect(await browser.consoleErrors()).toEqual([]);
  });

  it('of a function may change in its own text, and nobody who uses it breaks', async () => {
    const text = 'float swell(float x) { return x * 0.5; }';
    await server.request('POST', '/documents', {
      id: 'swell',
      document: { format: 'brelvin-function', version: 1, name: 'swell', tags: [], text, formerNames: [] },
    });
    const surface = {
      ...newMaterial('Buoy').surface,
      nodes: { s: { kind: 'library-swell', rev: 1, x: 40, y: 40, values: {} } },
      ribbons: { 'dock.emission': { from: 's', outlet: 'result' } },
    };
    await server.request('POST', '/documents', { id: 'buoy', document: { ...newMaterial('Buoy', { set: 'pier' }), surface } });
    await bench.driver.get(`${server.address}/bench/buoy?function=swell`);
    await bench.ready();
    await bench.click('.cm-content');
    await bench.chord(Key.CONTROL, 'a');
    await type('float tide(float x) { return x * 0.25; }');
    await bench.waitForText('[role="tab"]', /tide/);
    await bench.saved();
    expect((await server.request('GET', '/documents/swell')).body['document']).toEqual(
      jasmine.objectContaining({ name: 'tide', formerNames: ['swell'] }),
    );
    await bench.press('graph', '.graph-bar');
    await bench.press('about', '.panel-tabs');
    expect(await bench.text('.panel-about')).not.toContain('There is no kind of node');
    await bench.openLibrary();
    await bench.press('Functions', '.library-head');
    await bench.waitForText('.library-name', /tide/);
  });
});
