import { createHash } from 'node:crypto';
import { zipSync } from 'fflate';
import { newMaterial, newRig, newSet } from '@brelvin/core';
import { Key } from 'selenium-webdriver';
import type { ServerProcess } from '../../support/server-process';
import type { Bench } from '../support/bench';
import type { Browser } from '../support/browser';
import { bump, bumpNormals, eightMaps, pngFile } from '../support/map-files';
import { withBench } from '../support/with-bench';

describe('Maps', () => {
  let browser: Browser;
  let bench: Bench;
  let server: ServerProcess;

  withBench((open) => ({ browser, bench, server } = open));

  /** A new material, on its graph. */
  async function fresh(): Promise<void> {
    const [set, rig] = [await server.keep(newSet('Set of Plate')), await server.keep(newRig('Light of Plate'))];
    await bench.openMaterial(await server.keep(newMaterial('Plate', { set, rig })));
  }

  async function drop(files: Parameters<Bench['dropFiles']>[1]): Promise<void> {
    const ground = await bench.ground(500, 300);
    await bench.dropFiles(await bench.see('.graph-surface'), files, ground);
  }

  /** Read at one moment: cards come and go while a step is taken back. */
  const kinds = async (): Promise<string[]> =>
    (
      await bench.driver.executeScript<string[]>(
        "return [...document.querySelectorAll('[data-card]')].map((card) => card.getAttribute('data-kind') ?? '')",
      )
    ).sort();

  it('are a set when eight files are dropped: looked over, laid on, and taken back in one step', async () => {
    await fresh();
    const before = await bench.stagePixels();
    await drop(eightMaps());
    await bench.see('.map-set');
    expect(await bench.text('.map-set-head')).toContain('Tern plate: 8 images');
    const read = await Promise.all(
      (await bench.all('.map-set-row select')).map((each) => bench.driver.executeScript<string>('return arguments[0].value', each)),
    );
    expect(read).toEqual(['colour', 'roughness', 'metallic', 'normal', 'height', 'occlusion', 'emission', 'opacity']);
    // Nothing has changed yet, and one of them is left out.
    await (await bench.see('.map-set-row:nth-child(8) option[value=""]')).click();
    await bench.press('Lay 7 on');
    await bench.waitForText('.save-state', /^saved$/);
    expect(await kinds()).toEqual([
      'displaceByHeight',
      'image',
      'image',
      'image',
      'image',
      'image',
      'image',
      'image',
      'normalFromMap',
      'occlusionStrength',
      'physicalSurface',
      'uvTransform',
    ]);
    await bench.expectChange(before, 0.2);
    await bench.undo();
    await bench.driver.wait(async () => (await kinds()).join() === 'colour,lambert', 60_000, 'one undo did not take the set back');
    await bench.press('maps', '.graph-bar');
    expect((await bench.all('.maps-entry')).length).toBe(0);
    expect(await browser.consoleErrors()).toEqual([]);
  });

  it('turn from dents to bumps with the way their green is read, by the hint that says so', async () => {
    await fresh();
    await drop([pngFile('oar_color.png', () => [0.7, 0.7, 0.7]), bumpNormals('oar_normal_gl.png', true)]);
    await bench.see('.map-set');
    // The name lies about its green, and the pixels say so.
    expect(await bench.text('.map-set-words')).toMatch(/as if green pointed down/);
    await bench.press('Lay 2 on');
    await bench.see('[data-kind="normalFromMap"]');
    const wrong = await bench.stagePixels();
    await bench.press('checks', '.panel-about');
    await bench.waitForText('.panel-about', /looks as if its green pointed down/);
    await bench.press('maps', '.graph-bar');
    await (await bench.see('.maps-entry:nth-child(2)')).click();
    await bench.waitForText('.maps-details', /Its pixels look as if green pointed down\. It is read as green up\./);
    await bench.press('green down', '.maps-reliefs');
    await bench.expectChange(wrong, 0.02);
    await bench.waitForText('.maps-details', /It is read as green down\./);
    await bench.undo();
    await bench.waitForText('.maps-details', /It is read as green up\./);
  });

  it('move vertices only where there are enough: the hint gives the mesh more', async () => {
    await fresh();
    await drop([pngFile('slab_height.png', (u, v) => [bump(u, v)]), bumpNormals('slab_normal_gl.png', false)]);
    await bench.see('.map-set');
    await bench.press('Lay 2 on');
    await bench.see('[data-kind="displaceByHeight"]');
    await bench.press('checks', '.panel-about');
    await bench.waitForText('.panel-about', /about 45 vertices along the image/);
    const coarse = await bench.stagePixels();
    await bench.press('Give it', '.panel-about');
    await bench.driver.wait(
      async () => !/vertices along the image/.test(await bench.text('.panel-about')),
      60_000,
      'the finding stays after its mend',
    );
    await bench.expectChange(coarse, 0.01);
  });

  it('occlude by the second UVs where they are told to', async () => {
    await fresh();
    await drop([pngFile('crate_color.png', () => [0.8, 0.8, 0.8]), pngFile('crate_ao.png', (u) => [u < 0.5 ? 0 : 1])]);
    await bench.see('.map-set');
    await bench.press('Lay 2 on');
    await bench.see('[data-kind="occlusionStrength"]');
    await bench.press('mesh:', '.mesh-bar');
    await bench.press('Cube', '.mesh-list');
    await bench.keys(Key.ESCAPE);
    await bench.press('environment', '.panel-light');
    await bench.press('Loft window', '.panel-light');
    await bench.press('maps', '.graph-bar');
    await bench.click('.maps-entry:nth-child(2)');
    await bench.waitForText('.maps-details', /Shown by/);
    const first = await bench.stagePixels();
    await bench.press('second', '.maps-details');
    // Each side had one dark half; now sides of the left half of the second set are dark altogether.
    await bench.expectChange(first, 0.05);
  });

  it('are shown large: by channel, with their values, over the UVs, with what shows them', async () => {
    await bench.openMaterial('material-burner-brass');
    await bench.press('maps', '.graph-bar');
    await bench.see('.map-picture canvas[data-drawn="all "]');
    const canvas = await bench.see('.map-picture canvas');
    await bench.move(await bench.middle(canvas));
    // Three maps in one image: occlusion, roughness, metallic.
    await bench.waitForText('.maps-reading', /^256, 256: [01]\.\d{3} 0\.\d{3} 1\.000 1\.000 · stored \d+ \d+ 255 255$/);
    const whole = await canvas.takeScreenshot();
    await (await bench.see('.maps-bar [data-choice="blue"]')).click();
    await bench.see('.map-picture canvas[data-drawn="blue "]');
    expect(await canvas.takeScreenshot()).not.toBe(whole);
    await bench.press('UVs', '.maps-bar');
    await bench.see('.map-picture canvas[data-drawn="blue uv"]');
    await bench.press('Image', '.maps-uses');
    await bench.see('.graph-surface');
    await bench.see('.card-selected[data-kind="image"]');
  });

  it('are replaced everywhere at once, and follow the workspace when told to', async () => {
    await fresh();
    await drop([pngFile('sail_cloth.png', () => [0.2, 0.4, 0.8])]);
    await bench.card('image');
    await bench.connect(await bench.outlet('image', 'colour'), await bench.inlet('lambert', 'base'));
    const before = await bench.stagePixels();
    await bench.press('maps', '.graph-bar');
    await bench.press('follows', '.maps-details');
    await bench.waitForText('.maps-details', /Follows “sail_cloth\.png” of the workspace; this is its newest/);
    // Another file takes its place wherever it is shown, and follows no name.
    await bench.chooseFiles(await bench.see('.maps-details input[type="file"]'), [pngFile('other.png', () => [0.9, 0.3, 0.1])]);
    await bench.expectChange(before, 0.1);
    expect((await bench.all('.maps-entry')).length).toBe(1);
    await bench.undo();
    await bench.waitForText('.maps-details', /Follows “sail_cloth\.png”/);
    // The workspace has a newer image of that name: it is offered, and taken only when somebody wants it.
    const { content } = pngFile('sail_cloth.png', () => [0.1, 0.7, 0.2]);
    const sha256 = createHash('sha256').update(content).digest('hex');
    await server.request('POST', '/assets', { sha256, name: 'sail_cloth.png', type: 'image/png', size: content.length });
    const body = new Uint8Array(content);
    await fetch(`${server.address}/api/assets/${sha256}/chunks/0`, {
      method: 'PUT',
      headers: { 'content-type': 'application/octet-stream' },
      body,
    });
    expect((await server.request('POST', `/assets/${sha256}/finish`)).status).toBe(200);
    const again = async (): Promise<void> => {
      await bench.press('graph', '.graph-bar');
      await bench.press('maps', '.graph-bar');
    };
    await again();
    await bench.waitForText('.maps-details', /The workspace has a newer “sail_cloth\.png”/);
    expect((await bench.stagePixels()).changedShare(before)).toBeLessThan(0.02);
    await bench.press('Take it', '.maps-details');
    await bench.expectChange(before, 0.1);
    const taken = await bench.stagePixels();
    // Both of that name leave the shelf: the copy stays, and that is said.
    const { assets } = (await server.request('GET', '/assets?search=sail_cloth')).body as { assets: { sha256: string }[] };
    for (const asset of assets) await server.request('PATCH', `/assets/${asset.sha256}`, { deleted: true });
    await again();
    await bench.waitForText('.maps-details', /no image “sail_cloth\.png” any more\. The last copy stays/);
    expect((await bench.stagePixels()).changedShare(taken)).toBeLessThan(0.02);
  });

  it('are refused with a sentence when they are broken, climb out or unpack to too much; nothing else is touched', async () => {
    await fresh();
    const whole = pngFile('keel_color.png', (u) => [u, 0.5, 0.5]);
    const broken = { ...pngFile('keel_roughness.png', (u) => [u]), content: pngFile('x.png', (u) => [u]).content.subarray(0, 60) };
    await drop([whole, broken]);
    // What is whole is still offered.
    await bench.see('.map-set');
    expect(await bench.text('.map-set-words')).toMatch(/“keel_roughness\.png” was not imported\. It cannot be decoded/);
    await bench.press('Not now');
    const zip = (files: Record<string, Uint8Array>): { name: string; type: string; content: Buffer } => ({
      name: 'keel.zip',
      type: 'application/zip',
      content: Buffer.from(zipSync(files)),
    });
    await bench.press('graph', '.graph-bar');
    await drop([zip({ '../keel_color.png': whole.content })]);
    await bench.waitForText('.toast', /“keel\.zip” was not imported\. It holds a name that leads out of it/);
    await bench.press('graph', '.graph-bar');
    await drop([zip({ 'keel_color.png': new Uint8Array(70 * 1024 * 1024) })]);
    await bench.waitForText('.toast', /unpacks to more than is taken/);
    await bench.press('graph', '.graph-bar');
    await drop([
      zip({
        'keel/keel_color.png': whole.content,
        'keel/keel_ao.png': pngFile('a.png', (u) => [u]).content,
        'keel/notes.txt': whole.content,
      }),
    ]);
    await bench.see('.map-set');
    expect(await bench.text('.map-set-words')).toContain('keel/notes.txt is no image');
    expect((await bench.all('.map-set-row')).length).toBe(2);
  });
});
