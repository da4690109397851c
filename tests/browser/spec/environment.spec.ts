import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { LightRig, Material } from '@brelvin/contract';
import { PNG } from 'pngjs';
import { generatedEnvironment, newMaterial, newRig, writeRadiance, type FloatPicture } from '@brelvin/core';
import type { ServerProcess } from '../../support/server-process';
import type { Bench } from '../support/bench';
import type { Browser } from '../support/browser';
import { PICTURE_DEVICES, DEVICE_WORDS, itDrewWith } from '../support/on-both-devices';
import { withBench } from '../support/with-bench';

/** What is all around, and what is seen through glass: as an artist goes about it. */
for (const device of PICTURE_DEVICES)
  describe(`Environments and glass, drawn with ${DEVICE_WORDS[device]}:`, () => {
    let server: ServerProcess;
    let browser: Browser;
    let bench: Bench;

    withBench((open) => ({ server, browser, bench } = open), { device });

    /** A physical surface on a sphere, in a rig of its own in which nothing shines yet. */
    async function open(): Promise<{ material: string; rig: string }> {
      const plain = newRig('Empty room');
      const rig = await server.keep({ ...plain, sun: { ...plain.sun, on: false }, ambient: { ...plain.ambient, on: false } });
      const material = await server.keep({
        ...newMaterial('Mirror', { set: 'set-plain-sphere', rig }),
        surface: {
          ...newMaterial('Mirror').surface,
          nodes: { s: { kind: 'physicalSurface', rev: 1, x: 60, y: 40, values: { roughness: 0.15, metallic: 1 } } },
          ribbons: { 'dock.colour': { from: 's', outlet: 'result' } },
        },
      });
      await bench.openMaterial(material);
      await bench.press('environment', '.panel-light');
      return { material, rig };
    }

    const rigOf = (id: string): Promise<LightRig> => server.stored(id);

    /** Something is seen to change, and then to rest again. */
    async function changes(act: () => Promise<unknown>, least = 0.02): Promise<void> {
      const before = await bench.stagePixels();
      await act();
      await bench.expectChange(before, least);
    }

    /** Red from the right, blue from the left, grey else. */
    const sides: FloatPicture = (() => {
      const data = new Float32Array(64 * 32 * 3);
      for (let y = 0; y < 32; y++)
        for (let x = 0; x < 64; x++)
          data.set(x > 40 && x < 56 ? [3, 0.2, 0.2] : x > 8 && x < 24 ? [0.2, 0.2, 3] : [0.2, 0.2, 0.2], (y * 64 + x) * 3);
      return { width: 64, height: 32, data };
    })();

    it('is dropped on the Stage, lights and is seen, turns by the ring, and is taken back', async () => {
      const { rig } = await open();
      const stage = await bench.see('brelvin-stage');
      await changes(() => bench.dropFile(stage, 'sides.hdr', '', Buffer.from(writeRadiance(sides))), 0.3);
      await bench.saved();
      expect((await rigOf(rig)).environment).toEqual(jasmine.objectContaining({ name: 'sides', lights: true, shows: true, turn: 0 }));
      await bench.press('light dial', '.panel-light');
      const ring = await (await bench.see('.light-dial')).getRect();
      const at = (angle: number): { x: number; y: number } => ({
        x: Math.round(ring.x + ring.width / 2 + Math.sin(angle) * 59),
        y: Math.round(ring.y + ring.height / 2 - Math.cos(angle) * 59),
      });
      await changes(() => bench.drag(at(0), at(0.8), at(1.6)), 0.2);
      await bench.saved();
      expect((await rigOf(rig)).environment?.turn).toBeCloseTo(-1.6, 1);
      await changes(() => bench.undo(), 0.2);
      await changes(() => bench.undo(), 0.3);
      await bench.saved();
      expect((await rigOf(rig)).environment).toBeUndefined();
      expect(await browser.consoleErrors()).toEqual([]);
    });

    it('is swapped, day for night, with one click each', async () => {
      const { rig } = await open();
      await changes(() => bench.press('Loft window', '.environment-list'), 0.3);
      await changes(() => bench.press('Night harbour', '.environment-list'), 0.3);
      await bench.saved();
      expect((await rigOf(rig)).environment?.name).toBe('Night harbour');
      await changes(() => bench.press('It is the background', '.environment-fields'), 0.1);
      await changes(() => bench.press('It lights', '.environment-fields'), 0.1);
      await bench.saved();
      expect((await rigOf(rig)).environment).toEqual(jasmine.objectContaining({ lights: false, shows: false }));
      await bench.press('checks', '.panel-middle, body');
      await bench.waitForText('.check-list, brelvin-checks-panel', /lights nothing/);
    });

    it('is taken from six images by their names, and refused with a reason where they do not fit', async () => {
      const { rig } = await open();
      const square = (side: number, colour: readonly [number, number, number]): Buffer => {
        const png = new PNG({ width: side, height: side });
        for (let at = 0; at < side * side; at++) png.data.set([...colour, 255], at * 4);
        return PNG.sync.write(png);
      };
      const six = ['nz', 'px', 'nx', 'py', 'ny', 'pz'].map((word, index) => ({
        name: `room_${word}.png`,
        type: 'image/png',
        content: square(64, [40 * index, 255 - 40 * index, 120]),
      }));
      const stage = await bench.see('brelvin-stage');
      await bench.dropFiles(stage, [...six.slice(1), { ...six[0]!, content: square(32, [9, 9, 9]) }]);
      await bench.waitForText(
        '.environment-panel, brelvin-environment-panel',
        /room_nz\.png is 32 × 32, the first one 64 × 64\. All six must be of one size/,
      );
      await changes(() => bench.dropFiles(stage, six), 0.3);
      await bench.saved();
      expect((await rigOf(rig)).environment?.assets.length).toBe(6);
      expect((await rigOf(rig)).environment?.name).toBe('room');
    });

    for (const [what, name, content, words] of [
      [
        'a head that lies',
        'lie.hdr',
        Buffer.from('#?RADIANCE\nFORMAT=32-bit_rle_rgbe\n\n-Y 20000 +X 40000\n'),
        /claims 40000 × 20000 pixels/,
      ],
      [
        'a file that is cut off',
        'cut.hdr',
        Buffer.from(writeRadiance(generatedEnvironment('loft-window', 64)).slice(0, 900)),
        /cut off or damaged at row/,
      ],
      ['colours of another kind', 'xyz.hdr', Buffer.from('#?RADIANCE\nFORMAT=32-bit_rle_xyze\n\n-Y 1 +X 1\n....'), /CIE XYZ/],
      ['a picture of another kind', 'odd.exr', Buffer.from('not at all'), /not imported/],
    ] as const)
      it(`is refused with a reason: ${what}; all else stays`, async () => {
        const { rig } = await open();
        await changes(() => bench.press('Loft window', '.environment-list'), 0.3);
        await bench.dropFile(await bench.see('brelvin-stage'), name, '', content);
        await bench.waitForText('brelvin-environment-panel [role=alert]', words);
        await bench.saved();
        expect((await rigOf(rig)).environment?.name).toBe('Loft window');
      });

    it('is read from a JPEG with a gain map beyond white', async () => {
      await open();
      const grey = async (width: number, height: number, value: number): Promise<Buffer> => {
        const address = await bench.driver.executeScript<string>(
          `const [width, height, value] = arguments;
         const canvas = Object.assign(document.createElement('canvas'), { width, height });
         const context = canvas.getContext('2d');
         context.fillStyle = 'rgb(' + [value, value, value] + ')';
         context.fillRect(0, 0, width, height);
         return canvas.toDataURL('image/jpeg', 0.98);`,
          width,
          height,
          value,
        );
        return Buffer.from(address.slice(address.indexOf(',') + 1), 'base64');
      };
      const u32 = (value: number): number[] => [(value >>> 24) & 255, (value >>> 16) & 255, (value >>> 8) & 255, value & 255];
      const ratio = (value: number): number[] => [...u32(value * 100), ...u32(100)];
      // ISO 21496-1, annex C: two stops more wherever the map is white.
      const numbers = [0, 0, 0, 0, 0, ...ratio(0), ...ratio(2), ...ratio(0), ...ratio(2), ...ratio(1), ...ratio(0), ...ratio(0)];
      const content = [...Buffer.from('urn:iso:std:iso:ts:21496:-1\0'), ...numbers];
      const map = await grey(32, 16, 255);
      const segment = Buffer.from([0xff, 0xe2, (content.length + 2) >> 8, (content.length + 2) & 255, ...content]);
      const base = await grey(64, 32, 110);
      const folder = mkdtempSync(join(tmpdir(), 'gain-map-'));
      writeFileSync(join(folder, 'plain.jpg'), base);
      writeFileSync(join(folder, 'bright.jpg'), Buffer.concat([base, map.subarray(0, 2), segment, map.subarray(2)]));
      const corner = async (name: string): Promise<number> => {
        await changes(async () => (await bench.see('input[aria-label="Import an environment"]')).sendKeys(join(folder, name)), 0.3);
        return (await bench.stagePixels()).brightness(12, 12);
      };
      const [plain, bright] = [await corner('plain.jpg'), await corner('bright.jpg')];
      rmSync(folder, { recursive: true });
      // sRGB 110 is 0.156 in light, four times that 0.624: 207 as sRGB.
      expect(Math.abs(plain - 110)).toBeLessThan(4);
      expect(Math.abs(bright - 207)).toBeLessThan(4);
    });

    it('makes glass step by step, from opaque white to thick frosted glass', async () => {
      const { material } = await open();
      await changes(() => bench.press('Loft window', '.environment-list'), 0.2);
      const card = '[data-kind="physicalSurface"]';
      const set = async (label: string, text: string): Promise<void> => {
        const field = await bench.see(`${card} [aria-label="${label}"]`);
        await bench.retype(field, text);
      };
      const programs = (): Promise<number> => bench.compiledPrograms();
      await changes(() => set('Metallic', '0'), 0.05);
      const before = await programs();
      await changes(() => bench.click(`${card} [data-feature="hasTransmission"]`), 0.1);
      expect((await bench.all(`${card} [aria-label="Transmission"]`)).length).toBe(1);
      await changes(() => bench.click(`${card} [data-feature="hasVolume"]`), 0.01);
      expect((await bench.all(`${card} [aria-label="Thickness"]`)).length).toBe(1);
      const after = await programs();
      expect(after).toBeGreaterThan(before);
      await changes(() => set('Thickness', '0.4'), 0.01);
      await changes(() => set('Roughness', '0.35'), 0.03);
      expect(await programs()).toBe(after);
      await bench.click(`${card} [data-feature="hasVolume"]`);
      await bench.settled(async () => (await bench.all(`${card} [aria-label="Thickness"]`)).length, 0);
      await bench.undo();
      await bench.settled(async () => (await bench.all(`${card} [aria-label="Thickness"]`)).length, 1);
      await bench.saved();
      const stored = await server.stored<Material>(material);
      expect(stored.surface.nodes['s']?.features).toEqual(['hasTransmission', 'hasVolume']);
      expect(stored.surface.nodes['s']?.values['thickness']).toBe(0.4);
      expect(await browser.consoleErrors()).toEqual([]);
    });

    itDrewWith(device, () => bench);
  });
