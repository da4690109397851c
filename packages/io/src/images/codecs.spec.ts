import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import encodeJpeg, { init as initJpeg } from '@jsquash/jpeg/encode.js';
import encodeWebp, { init as initWebp } from '@jsquash/webp/encode.js';
import { PNG } from 'pngjs';
import { nodeBinaries } from '../node/binaries';
import { ImageCodecs } from './codecs';
import { decodeImage } from './decoded-image';
import { inspectImage } from './image-head';

const SIDE = 16;
const require = createRequire(import.meta.url);

/** Four squares: red, green, blue, white. */
function squares(): PNG {
  const picture = new PNG({ width: SIDE, height: SIDE });
  const colours = [
    [255, 0, 0],
    [0, 255, 0],
    [0, 0, 255],
    [255, 255, 255],
  ];
  for (let y = 0; y < SIDE; y++)
    for (let x = 0; x < SIDE; x++)
      picture.data.set([...(colours[(y < SIDE / 2 ? 0 : 2) + (x < SIDE / 2 ? 0 : 1)] ?? []), 255], (y * SIDE + x) * 4);
  return picture;
}

describe('Decoders in Node', () => {
  const codecs = new ImageCodecs(nodeBinaries);
  const picture = squares();
  const pixels = { width: SIDE, height: SIDE, data: Uint8ClampedArray.from(picture.data), colorSpace: 'srgb' } as ImageData;
  const files = new Map<string, ArrayBuffer>();

  beforeAll(async () => {
    const binary = async (path: string): Promise<WebAssembly.Module> => WebAssembly.compile(await readFile(require.resolve(path)));
    await initJpeg(await binary('@jsquash/jpeg/codec/enc/mozjpeg_enc.wasm'));
    await initWebp(await binary('@jsquash/webp/codec/enc/webp_enc.wasm'));
    files.set('image/png', Uint8Array.from(PNG.sync.write(picture)).buffer);
    files.set('image/jpeg', await encodeJpeg(pixels, { quality: 95 }));
    files.set('image/webp', await encodeWebp(pixels, { lossless: 1 }));
  });

  for (const [type, most] of [
    ['image/png', 0],
    ['image/jpeg', 12],
    ['image/webp', 0],
  ] as const)
    it(`read ${type}: its head, and its pixels as far as it keeps them`, async () => {
      const bytes = files.get(type)!;
      expect(inspectImage(bytes)).toEqual({ width: SIDE, height: SIDE, type });
      const { width, height, data } = await codecs.decode(bytes);
      expect([width, height]).toEqual([SIDE, SIDE]);
      const middles = [4 * SIDE + 4, 4 * SIDE + 12, 12 * SIDE + 4, 12 * SIDE + 12];
      for (const at of middles)
        for (let channel = 0; channel < 4; channel++)
          expect(Math.abs((data[at * 4 + channel] ?? NaN) - (picture.data[at * 4 + channel] ?? 0))).toBeLessThanOrEqual(most);
    });

  it('make an image for a device: all its levels, and what is known of it', async () => {
    const { levels, facts } = await decodeImage(codecs, files.get('image/png')!, 'colour');
    expect(levels[0]?.length).toBe(SIDE * SIDE * 4);
    expect(facts.even[3]).toBe(1);
  });

  it('say in words what is damaged, too large or of another kind', async () => {
    const png = files.get('image/png')!;
    await expectAsync(codecs.decode(png.slice(0, 60))).toBeRejectedWithError(/damaged or cut off/);
    await expectAsync(codecs.decode(new TextEncoder().encode('<svg/>').buffer)).toBeRejectedWithError(/SVG|no PNG, JPEG or WebP/);
    const wide = new Uint8Array(png.slice(0));
    new DataView(wide.buffer).setUint32(16, 60_000);
    await expectAsync(codecs.decode(wide.buffer)).toBeRejectedWithError(/claims 60000 × 16 pixels; at most 8192/);
  });

  it('leave it to a quicker decoder of the host, unless that gives something else', async () => {
    const asked: string[] = [];
    const quick = { width: SIDE, height: SIDE, data: new Uint8ClampedArray(SIDE * SIDE * 4).fill(7) };
    const own = new ImageCodecs(nodeBinaries, async (_bytes, type) => {
      asked.push(type);
      return quick;
    });
    expect(await own.decode(files.get('image/png')!)).toBe(quick);
    const wrong = new ImageCodecs(nodeBinaries, async () => ({ ...quick, width: 1 }));
    expect((await wrong.decode(files.get('image/png')!)).data[0]).toBe(255);
    expect(asked).toEqual(['image/png']);
  });
});
