import { mkdirSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { Key } from 'selenium-webdriver';
import { freshDatabase } from '../support/databases';
import { ServerProcess } from '../support/server-process';
import { Bench } from './support/bench';
import { ALL_PIXELS, Browser } from './support/browser';
import { eightMaps } from './support/map-files';
import { kiteGlb } from './support/mesh-files';

const FOLDER = fileURLToPath(new URL('../../docs/screenshots/', import.meta.url));

const server = await ServerProcess.start(await freshDatabase());
const browser = await Browser.open(ALL_PIXELS);
const bench = new Bench(browser, server.address);
const picture = async (name: string): Promise<void> => {
  await browser.picture(`${FOLDER}${name}.png`);
};

/** Closes what is open and puts the pointer where nothing reacts to it. */
async function calm(): Promise<void> {
  await bench.keys(Key.ESCAPE);
  await bench.move({ x: 640, y: 780 });
  await bench.sharp();
}

try {
  mkdirSync(FOLDER, { recursive: true });
  await bench.openLibrary();
  await bench.press('Dark', 'brelvin-theme-switch');
  await bench.driver.wait(async () => (await bench.all('img.library-picture')).length === 25, 300_000, 'all pictures');
  await picture('library-dark');
  for (const room of ['Dark', 'Light']) {
    await bench.openLibrary();
    await bench.press(room, 'brelvin-theme-switch');
    await bench.openMaterial('material-puppet-cheek');
    await (await bench.card('bands')).click();
    await calm();
    await (await bench.see('[data-kind="bands"] .card-name')).click();
    await bench.sharp();
    if (room === 'Dark') await picture('bench-dark');
  }
  // What it costs, in the light room.
  await bench.press('cost', '.panel-about');
  await bench.see('.cost-table');
  await bench.click('.cost-check input');
  await bench.press('Measure', '.cost-panel');
  await bench.waitForText('.cost-panel', /whole picture/);
  await bench.click('.cost-check input');
  await bench.click('.cost-check input');
  await calm();
  await picture('cost-light');
  await bench.click('.cost-check input');
  await bench.press('Dark', 'brelvin-theme-switch');
  await bench.openMaterial('material-lamp-chimney');
  await bench.press('environment', '.panel-light');
  await bench.click('[data-kind="physicalSurface"] .card-name');
  await calm();
  await picture('glass');
  await bench.openMaterial('material-puppet-cheek');
  const outlet = await bench.middle(await bench.outlet('bands'));
  await bench.drag(outlet, { x: outlet.x - 20, y: outlet.y + 120 }, await bench.ground(120, 320));
  await bench.see('.finder');
  await picture('finder');
  await bench.openMaterial('material-puppet-sash');
  await bench.see('.cm-content');
  await calm();
  await picture('code');
  await bench.openMaterial('material-puppet-cheek');
  await bench.choose('bands');
  await bench.press('code', '.graph-bar');
  await bench.press('WGSL', '.code-bar');
  await bench.waitForText('.code-marked', /let bands1/);
  await calm();
  await picture('graph-as-code');
  await bench.openMaterial('material-salt-glazed-jar');
  await bench.press('Mid', 'brelvin-theme-switch');
  await bench.press('maps', '.graph-bar');
  await bench.click('.maps-entry:nth-child(3)');
  await bench.press('UVs', '.maps-bar');
  await bench.see('.maps-reliefs canvas');
  await bench.driver.sleep(1500);
  await bench.sharp();
  await bench.move(await bench.middle(await bench.see('.map-picture canvas')));
  await picture('maps-mid');
  await bench.press('Dark', 'brelvin-theme-switch');
  await bench.pick('Dusk quay', 'light rig', '.bench-bar');
  await bench.keys(Key.F9);
  await bench.driver.sleep(2500);
  await bench.sharp();
  await picture('jar');
  await bench.keys(Key.F9);
  await bench.undo();
  await bench.saved();
  await bench.openMaterial('material-kite-dusk');
  await bench.dropFiles(await bench.see('.graph-surface'), eightMaps(), await bench.ground(400, 300));
  await bench.see('.map-set');
  await calm();
  await picture('map-set');
  await bench.press('Not now', '.map-set-foot');
  await bench.dropFiles(await bench.see('.stage-canvas'), [await kiteGlb()]);
  await bench.waitForText('.notice', /3 parts/);
  await bench.ready();
  await bench.press('parts', '.graph-bar');
  await bench.click('.parts-part');
  await calm();
  await picture('mesh');
  await bench.openMaterial('material-store-boards');
  await bench.press('mesh:');
  await bench.press('edit', '.mesh-panel');
  await bench.waitForText('.trail', /Net store/);
  await calm();
  await picture('field');
  await bench.press('terms', '.panel-light');
  await bench.press('view', 'brelvin-view-menu');
  await bench.click('[data-view="steps"]');
  await bench.driver.sleep(1500);
  await bench.sharp();
  await picture('views');
  await bench.click('[data-view="none"]');
  await bench.keys(Key.ESCAPE);
  await bench.press('light dial', '.panel-light');
  await bench.openMaterial('material-puppet-cheek');
  await bench.press('parts', '.graph-bar');
  await bench.driver.wait(async () => (await bench.all('.parts-part')).length > 3, 10_000, 'parts');
  await (await bench.all('.parts-part'))[2]!.click();
  await calm();
  await picture('parts');
  await bench.press('graph', '.graph-bar');
  await bench.addNode('rim', await bench.ground(60, 460));
  await bench.press('checks', '.panel-tabs');
  await bench.press('why', '.finding');
  await calm();
  await picture('checks');
  await bench.openMaterial('material-puppet-cheek');
  await bench.pick('Lamp room', 'light rig', '.bench-bar');
  await bench.driver.wait(async () => (await bench.all('.light-name')).length === 5, 10_000, 'the lamps of the room');
  await bench.click('.light-name[data-light="bench"]');
  await calm();
  await picture('lights');
  await bench.press('compare', '.mesh-bar');
  await bench.pick('Dusk quay', 'light rig: choose', '.compare-panel');
  await bench.waitForText('.compare-numbers', /apart/);
  await calm();
  await picture('compare');
  await bench.openMaterial('material-kite-dusk');
  await bench.press('probe', '.panel-about');
  const stage = await (await bench.see('.stage-canvas')).getRect();
  for (const [across, down] of [
    [0.4, 0.35],
    [0.6, 0.5],
    [0.45, 0.68],
  ] as const) {
    const spot = { x: Math.round(stage.x + stage.width * across), y: Math.round(stage.y + stage.height * down) };
    await bench.drag(spot, spot);
    await bench.driver.sleep(1500);
  }
  await bench.driver.wait(async () => (await bench.all('.probe-mark')).length === 3, 20_000, 'three pins');
  await calm();
  await picture('probe');
  await bench.driver.get(`${server.address}/bench/material-festival-silk`);
  await bench.press('time', '.mesh-bar');
  await bench.ready();
  await bench.command('Previews on all nodes');
  await bench.press('tidy', '.graph-bar');
  await bench.driver.sleep(2500);
  await calm();
  await picture('previews');
} finally {
  await browser.close();
  await server.stop();
}
