import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { newMaterial } from '@brelvin/core';
import { PNG } from 'pngjs';
import { seededDatabase } from '../../support/seeded-database';
import { ServerProcess } from '../../support/server-process';
import { Bench } from '../support/bench';
import { Browser } from '../support/browser';
function largeImage(folder: string, name: string, side: number): string {
  const png = new PNG({ width: side, height: side });
  for (let at = 0; at < png.data.length; at += 4) {
    const [x, y] = [(at / 4) % side, Math.floor(at / 4 / side)];
    const grain = (Math.imul(x ^ (y << 12), 2_654_435_761) >>> 24) & 31;
    png.data.set([(x * 255) / side, (y * 255) / side, 128 + grain, 255], at);
  }
  const file = join(folder, name);
  writeFileSync(file, PNG.sync.write(png, { deflateLevel: 1 }));
  return file;
}
describe('png', () => {
  it('runs', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'zz-'));
    const server = await ServerProcess.start(await seededDatabase());
    for (const [what, files] of [['tiny', [largeImage(folder, 'keel_basecolor.png', 4096)]], ['eight', ['basecolor', 'roughness', 'metallic', 'normal_gl', 'height', 'ao', 'emissive', 'opacity'].map((n) => largeImage(folder, `hull_${n}.png`, 2048))]] as const) {
      const browser = await Browser.open();
      await browser.beforePages(`
        window.log = []; const t0 = () => Math.round(performance.now());
        for (const n of ['linkProgram','generateMipmap','texImage2D','texSubImage2D','readPixels','getProgramParameter','clientWaitSync','blitFramebuffer','texStorage2D']) { const f = WebGL2RenderingContext.prototype[n]; WebGL2RenderingContext.prototype[n] = function (...a) { const s = performance.now(); const r = f.apply(this, a); const d = performance.now() - s; const size = n.startsWith('tex') ? a.filter(x => typeof x === 'number').slice(1,6).join('x') : ''; if (n !== 'texSubImage2D' && n !== 'clientWaitSync' && n !== 'blitFramebuffer' && n!=='getProgramParameter' || d > 5) window.log.push([t0(), n + ' ' + size, Math.round(d)]); return r; }; }
        const of = window.fetch; window.fetch = async (...a) => { const s = t0(); const r = await of(...a); window.log.push([s, (a[1]?.method ?? 'GET') + ' ' + String(a[0]).slice(0, 40).replace(/[0-9a-f]{64}/, 'HASH'), t0() - s]); return r; };
        new MutationObserver(() => { const c = document.querySelector('.stage-canvas'); if (!c) return; const k = c.dataset.pictures + ' ' + c.dataset.sharp; if (k !== window.k) { window.k = k; window.log.push([t0(), 'picture ' + k]); } }).observe(document, { subtree: true, attributes: true, childList: true });
      `);
      const bench = new Bench(browser.driver, server.address, 120000);
      await server.request('POST', '/documents', { id: what, document: newMaterial(what, { set: 'set-plain-sphere', rig: 'rig-north-window' }) });
      await bench.openMaterial(what);
      await bench.press('maps', '.graph-bar');
      await bench.see('.maps-tools input[type="file"]');
      await browser.driver.executeScript('window.log = []; window.start = Math.round(performance.now())');
      const started = performance.now();
      await (await bench.see('.maps-tools input[type="file"]')).sendKeys(files.join('\n'));
      await bench.see('.map-set');
      console.log(what, 'proposed', performance.now() - started);
      const before = await bench.pictures();
      await bench.press('Lay', '.map-set-foot');
      await browser.driver.wait(async () => (await bench.pictures()) > before && (await bench.stageAttribute('sharp')) === 'true', 120000);
      console.log(what, 'rest', performance.now() - started);
      console.log(((await browser.driver.executeScript('return window.log.map(([t, ...r]) => [t - window.start, ...r])')) as any[]).map((r) => r.join(' ')).join('\n'));
      await browser.close();
    }
    await server.stop();
  });
});
