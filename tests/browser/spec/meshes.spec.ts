import { Key } from 'selenium-webdriver';
import type { ServerProcess } from '../../support/server-process';
import type { Bench } from '../support/bench';
import type { Browser } from '../support/browser';
import { pngFile } from '../support/map-files';
import { kiteGlb } from '../support/mesh-files';
import { underPlainDay } from '../support/plain-day';
import { withBench } from '../support/with-bench';

describe('Meshes of files', () => {
  let browser: Browser;
  let bench: Bench;
  let server: ServerProcess;

  withBench((open) => ({ server, browser, bench } = open));

  const dropOnStage = async (files: Parameters<Bench['dropFiles']>[1]): Promise<void> =>
    bench.dropFiles(await bench.see('.stage-canvas'), files);

  it('stand with their parts, materials and images, which can be edited', async () => {
    await bench.openMaterial(await underPlainDay(server, 'material-puppet-cheek'));
    await dropOnStage([await kiteGlb()]);
    await bench.waitForText('.notice', /kite\.glb: 3 parts, .* triangles, 2 materials\./);
    expect(await bench.text('.notice')).toMatch(/1 animation was left out/);
    expect(await bench.text('.notice')).toMatch(/It has no second UVs: a set without overlaps was made/);
    await bench.ready();
    // The first of its materials is on the Bench, in a set of the mesh's own.
    expect(await (await bench.see('.material-name')).getAttribute('value')).toBe('Sail cloth');
    expect(await bench.text('.bench-bar')).toContain('kite');
    const pixels = await bench.stagePixels();
    expect(pixels.share(([red = 0, green = 0, blue = 0]) => red > 120 && red > 2 * green && red > 2 * blue)).toBeGreaterThan(0.02);
    await bench.press('parts', '.graph-bar');
    await bench.waitForText(
      '.parts-list',
      /Sail[\s\S]*material on the Bench[\s\S]*Mast[\s\S]*Varnished spar[\s\S]*Yard[\s\S]*Varnished spar/,
    );
    // An edit of the material is seen on the mesh.
    await bench.press('graph', '.graph-bar');
    await bench.retype(await bench.number('physicalSurface', 'Metallic'), '1');
    await bench.expectChange(pixels, 0.02);
    await bench.undo();
    await bench.press('maps', '.graph-bar');
    await bench.waitForText('.maps-list', /stripes/);
    // It is all there after the page was left.
    await bench.saved();
    await bench.driver.navigate().refresh();
    await bench.ready();
    expect((await bench.stagePixels()).changedShare(pixels)).toBeLessThan(0.02);
    // The workspace has it now: it stands in another set by being picked.
    await bench.openMaterial(await underPlainDay(server, 'material-burner-brass'));
    await bench.press('parts', '.graph-bar');
    const without = await bench.stagePixels();
    await bench.pick('kite.glb', 'Add', '.parts-tools');
    await bench.waitForText('.parts-list', /kite[\s\S]*Sail[\s\S]*Mast[\s\S]*Yard/);
    await bench.expectChange(without, 0.005);
    await bench.undo();
    // Or in the place of the one whose numbers stand below the picture.
    await bench.press('mesh:');
    await bench.pick('kite.glb', 'of the workspace', '.mesh-panel');
    await bench.waitForText('.mesh-bar', /kite\.glb/);
    await bench.keys(Key.ESCAPE);
    await bench.undo();
    await bench.waitForText('.mesh-bar', /mesh:\s+lamp/);
    await bench.saved();
    expect(await browser.consoleErrors()).toEqual([]);
  });

  it('without materials stand in what is on the Bench; they are fitted on demand, and undo brings the old set back', async () => {
    await bench.openMaterial(await underPlainDay(server, 'material-burner-brass'));
    const before = await bench.stagePixels();
    const obj = ['v 0 0 0', 'v 300 0 0', 'v 0 300 0', 'v 0 0 300', 'o tent', 's off', 'f 1 3 2', 'f 1 2 4', 'f 1 4 3', 'f 2 3 4'].join(
      '\n',
    );
    await dropOnStage([{ name: 'tent.obj', type: '', content: Buffer.from(obj) }]);
    await bench.waitForText('.notice', /tent\.obj: 1 part, 4 triangles, 0 materials\. It measures 300 m: fit it in the parts tab/);
    await bench.ready();
    await bench.press('parts', '.graph-bar');
    await (await bench.see('.parts-part')).click();
    await bench.waitForText('.parts-detail', /4 triangles; made for it: normals, UVs, tangents, second UVs/);
    await bench.press('to 2 m', '.parts-detail');
    await bench.settled(async () => (await bench.all('.parts-detail [aria-label="Scale x"]')).length, 1);
    await bench.undo();
    await bench.undo();
    await bench.waitForText('.bench-bar', /Lamp on the sill/);
    expect((await bench.stagePixels()).changedShare(before)).toBeLessThan(0.02);
  });

  it('are refused with a sentence where they are broken, and the Stage keeps what it had', async () => {
    await bench.openMaterial(await underPlainDay(server, 'material-puppet-hair'));
    const before = await bench.stagePixels();
    const kite = await kiteGlb();
    const gltf = (json: object): Buffer => Buffer.from(JSON.stringify({ asset: { version: '2.0' }, ...json }));
    const cases: readonly (readonly [string, Buffer, RegExp])[] = [
      ['cut.glb', kite.content.subarray(0, 400), /“cut\.glb” was not imported\. It ends too early/],
      ['draco.gltf', gltf({ extensionsRequired: ['KHR_draco_mesh_compression'] }), /compressed by Draco/],
      ['future.gltf', gltf({ extensionsRequired: ['LOFT_feathers'] }), /requires LOFT_feathers/],
      ['loop.gltf', gltf({ nodes: [{ children: [1] }, { children: [0] }] }), /its own ancestor/],
      [
        'far.gltf',
        gltf({ buffers: [{ byteLength: 8, uri: 'far.bin' }], bufferViews: [{ buffer: 0, byteLength: 80 }] }),
        /reaches past its buffer/,
      ],
      ['lost.gltf', gltf({ buffers: [{ byteLength: 8, uri: 'lost.bin' }] }), /“lost\.bin” is missing/],
      ['wide.obj', Buffer.from([0xff, 0xfe, 0x76, 0x00]), /UTF-16/],
      ['odd.obj', Buffer.from('v 0 0 0\nf 1 2 3'), /Line 2: a face names vertex “2”/],
      ['none.obj', Buffer.from('# nothing'), /It holds no triangles/],
    ];
    for (const [name, content, words] of cases) {
      await dropOnStage([{ name, type: '', content }]);
      await bench.waitForText('.notice', words);
    }
    expect((await bench.stagePixels()).changedShare(before)).toBeLessThan(0.01);
    // What is missing beside a mesh is said, and the mesh comes.
    const obj = ['mtllib tent.mtl', 'usemtl canvas', 'v 0 0 0', 'v 1 0 0', 'v 0 1 0', 'vt 0 0', 'vt 1 0', 'vt 0 1', 'f 1/1 2/2 3/3'].join(
      '\n',
    );
    const mtl = ['newmtl canvas', 'Kd 1 1 1', 'map_Kd canvas.png'].join('\n');
    await dropOnStage([
      { name: 'tent.obj', type: '', content: Buffer.from(obj) },
      { name: 'tent.mtl', type: '', content: Buffer.from(mtl) },
    ]);
    await bench.waitForText('.notice', /tent\.obj: 1 part.*“canvas\.png” of “canvas” is missing/);
    await bench.ready();
    expect(await (await bench.see('.material-name')).getAttribute('value')).toBe('canvas');
    expect(await browser.consoleErrors()).toEqual([]);
  });

  it('wear six images on six parts when six files are dropped, and one undo takes them off', async () => {
    await bench.openMaterial(await underPlainDay(server, 'material-kite-dusk'));
    await bench.press('mesh:', '.mesh-bar');
    await bench.press('Cube', '.mesh-list');
    await bench.keys(Key.ESCAPE);
    await bench.press('parts', '.graph-bar');
    await bench.driver.wait(async () => (await bench.all('.parts-part')).length === 6, 60_000, 'the cube has six parts');
    const before = await bench.stagePixels();
    const colours = {
      front: [0.9, 0, 0],
      back: [0.9, 0.9, 0],
      right: [0, 0.9, 0],
      left: [0, 0.9, 0.9],
      top: [0, 0, 0.9],
      bottom: [0.9, 0, 0.9],
    };
    const view = await bench.see('brelvin-parts-view');
    await bench.dropFiles(view, [pngFile('holiday.png', () => [1])]);
    await bench.waitForText('.toast', /No file is named after a part\..*end their names in front, back/);
    await bench.dropFiles(
      view,
      Object.entries(colours).map(([side, colour]) => pngFile(`crate_${side}.png`, () => colour)),
    );
    await bench.waitForText('.parts-list', /front\s+crate_front[\s\S]*bottom\s+crate_bottom/);
    await bench.driver.wait(
      async () => {
        const pixels = await bench.stagePixels();
        const has = (channel: 0 | 1 | 2): boolean =>
          pixels.share((colour) => colour.every((each, at) => at === channel || each * 1.6 < colour[channel])) > 0.01;
        // From in front, above and the right.
        return has(0) && has(1) && has(2);
      },
      60_000,
      'front, right and top never showed their own images',
    );
    await bench.undo();
    await bench.waitForText('.parts-list', /front\s+the material on the Bench/);
    expect((await bench.stagePixels()).changedShare(before)).toBeLessThan(0.02);
  });
});
