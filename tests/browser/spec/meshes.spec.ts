import type { Bench } from '../support/bench';
import type { Browser } from '../support/browser';
import { pngFile } from '../support/map-files';
import { kiteGlb } from '../support/mesh-files';
import { withBench } from '../support/with-bench';

describe('Meshes of files', () => {
  let browser: Browser;
  let bench: Bench;

  withBench((open) => ({ browser, bench } = open));

  const dropOnStage = async (files: Parameters<Bench['dropFiles']>[1]): Promise<void> =>
    bench.dropFiles(await bench.see('.stage-canvas'), files);

  it('stand with their parts, materials and images, which can be edited', async () => {
    await bench.openMaterial('material-puppet-cheek');
    await dropOnStage([await kiteGlb()]);
    await bench.waitForText('.toast', /kite\.glb: 3 parts, .* triangles, 2 materials\./);
    expect(await bench.text('.toast')).toMatch(/1 animation was left out/);
    expect(await bench.text('.toast')).toMatch(/It has no second UVs: a set without overlaps was made/);
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
    expect(await browser.consoleErrors()).toEqual([]);
  });

  it('without materials stand in what is on the Bench; they are fitted on demand, and undo brings the old set back', async () => {
    await bench.openMaterial('material-burner-brass');
    const before = await bench.stagePixels();
    const obj = ['v 0 0 0', 'v 300 0 0', 'v 0 300 0', 'v 0 0 300', 'o tent', 's off', 'f 1 3 2', 'f 1 2 4', 'f 1 4 3', 'f 2 3 4'].join(
      '\n',
    );
    await dropOnStage([{ name: 'tent.obj', type: '', content: Buffer.from(obj) }]);
    await bench.waitForText('.toast', /tent\.obj: 1 part, 4 triangles, 0 materials\. It measures 300 m: fit it in the parts tab/);
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
    await bench.openMaterial('material-puppet-hair');
    const before = await bench.stagePixels();
    const kite = await kiteGlb();
    const gltf = (json: object): Buffer => Buffer.from(JSON.stringify({ asset: { version: '2.0' }, ...json }));
    const cases: readonly (readonly [string, Buffer, RegExp])[] = [
      ['cut.glb', kite.content.subarray(0, 400), /“cut\.glb” was not taken\. It ends too early/],
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
      await bench.waitForText('.toast', words);
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
    await bench.waitForText('.toast', /tent\.obj: 1 part.*“canvas\.png” of “canvas” is missing/);
    await bench.ready();
    expect(await (await bench.see('.material-name')).getAttribute('value')).toBe('canvas');
    expect(await browser.consoleErrors()).toEqual([]);
  });

  it('have six images, one on each of six parts', async () => {
    await bench.openMaterial('material-label-front');
    await bench.press('parts', '.graph-bar');
    const wears = await bench.waitForText('.parts-list', /Label, right/);
    for (const side of ['back', 'right', 'left', 'top', 'bottom']) expect(wears).toContain(`Label, ${side}`);
    const before = await bench.stagePixels();
    // Another image on the front alone: the others keep theirs.
    await bench.press('maps', '.graph-bar');
    const field = await bench.see('.maps-details input[type="file"]');
    await bench.driver.executeScript(
      `const transfer = new DataTransfer();
       transfer.items.add(new File([Uint8Array.from(atob(arguments[1]), (each) => each.charCodeAt(0))], 'green.png', { type: 'image/png' }));
       arguments[0].files = transfer.files;
       arguments[0].dispatchEvent(new Event('change'));`,
      field,
      pngFile('green.png', () => [0, 0.9, 0]).content.toString('base64'),
    );
    await bench.expectChange(before, 0.05);
    const after = await bench.stagePixels();
    const green = after.share(([red = 0, g = 0, blue = 0]) => g > 60 && g > 3 * red && g > 3 * blue);
    expect(green).toBeGreaterThan(0.05);
    expect(after.changedShare(before)).toBeLessThan(green + 0.05);
  });
});
