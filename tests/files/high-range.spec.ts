import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PictureRefused, radianceHead, readRadiance, writeRadiance, type FloatPicture } from '@brelvin/core';
import { ExrReader, ExrWriter } from '@brelvin/io';
import { nodeBinaries } from '@brelvin/io/node';

const [WIDTH, HEIGHT] = [24, 10];

/** Values from almost nothing to far beyond white, each of its own. */
function values(): Float32Array<ArrayBuffer> {
  return Float32Array.from({ length: WIDTH * HEIGHT * 3 }, (_, at) => 2 ** (((at * 7) % 31) - 15) * (1 + (at % 13) / 13));
}

/** Portable float map: rows from the bottom up. */
function pfm(data: Float32Array): Buffer {
  const head = Buffer.from(`PF\n${WIDTH} ${HEIGHT}\n-1.0\n`);
  const rows = Array.from({ length: HEIGHT }, (_, row) => data.slice((HEIGHT - 1 - row) * WIDTH * 3, (HEIGHT - row) * WIDTH * 3));
  return Buffer.concat([head, ...rows.map((row) => Buffer.from(row.buffer))]);
}

/** The largest difference as a part of the pixel's brightest channel. */
function farthest(found: FloatPicture, expected: Float32Array): number {
  let worst = 0;
  for (let at = 0; at < expected.length; at += 3) {
    const peak = Math.max(...expected.subarray(at, at + 3));
    for (let channel = 0; channel < 3; channel++)
      worst = Math.max(worst, Math.abs((found.data[at + channel] ?? NaN) - (expected[at + channel] ?? 0)) / peak);
  }
  return worst;
}

describe('High-range pictures made by Debian’s own tools', () => {
  const exr = new ExrReader(nodeBinaries);
  let folder: string;
  const made = (command: string): Buffer => {
    execFileSync('sh', ['-c', command], { cwd: folder });
    return readFileSync(join(folder, 'out'));
  };

  beforeAll(() => {
    folder = mkdtempSync(join(tmpdir(), 'high-range-'));
    writeFileSync(join(folder, 'in.pfm'), pfm(values()));
  });

  afterAll(() => rmSync(folder, { recursive: true }));

  it('RGBE: have the numbers that went in', () => {
    const file = made('pfsinpfm in.pfm | pfsoutrgbe --quiet out');
    const { picture } = readRadiance(file, 2048);
    expect([picture.width, picture.height]).toEqual([WIDTH, HEIGHT]);
    // Eight bits of mantissa, shared by three channels.
    expect(farthest(picture, values())).toBeLessThan(1 / 128);
  });

  /** A portable float map as they write it. */
  function upright(back: Buffer): FloatPicture {
    const start = back.indexOf('\n', back.indexOf('\n', back.indexOf('\n') + 1) + 1) + 1;
    const floats = new Float32Array(new Uint8Array(back.subarray(start)).buffer);
    const data = new Float32Array(floats.length);
    for (let row = 0; row < HEIGHT; row++)
      data.set(floats.subarray((HEIGHT - 1 - row) * WIDTH * 3, (HEIGHT - row) * WIDTH * 3), row * WIDTH * 3);
    return { width: WIDTH, height: HEIGHT, data };
  }

  it('RGBE: what we write is read by them', () => {
    writeFileSync(join(folder, 'ours.hdr'), writeRadiance({ width: WIDTH, height: HEIGHT, data: values() }));
    expect(farthest(upright(made('pfsinrgbe ours.hdr | pfsoutpfm out')), values())).toBeLessThan(1 / 128);
  });

  it('OpenEXR: what we write is read by them, with layers beside it', async () => {
    const all = values();
    const layer = { channels: ['R', 'G', 'B'], values: all };
    const other = { name: 'diffuse', channels: ['R', 'G', 'B'], values: all.map((each) => each / 2) };
    writeFileSync(join(folder, 'ours.exr'), await new ExrWriter(nodeBinaries).write(WIDTH, HEIGHT, [layer, other]));
    expect(farthest(upright(made('pfsinexr ours.exr | pfsoutpfm out')), all)).toBeLessThan(1e-6);
  });

  for (const compression of ['NO', 'RLE', 'ZIPS', 'ZIP', 'PIZ'])
    it(`EXR: have the numbers that went in, packed by ${compression}`, async () => {
      const file = made(`pfsinpfm in.pfm | pfsoutexr --float32 --compression ${compression} out`);
      const { picture } = await exr.read(file);
      expect([picture.width, picture.height]).toEqual([WIDTH, HEIGHT]);
      expect(farthest(picture, values())).toBeLessThan(1e-6);
    });

  it('EXR: half floats have them to their eleven bits', async () => {
    const { picture } = await exr.read(made('pfsinpfm in.pfm | pfsoutexr --compression ZIP out'));
    expect(farthest(picture, values())).toBeLessThan(1 / 1024);
  });

  it('EXR: are refused with a reason where they are cut off or lie', async () => {
    const file = made('pfsinpfm in.pfm | pfsoutexr --compression ZIP out');
    await expectAsync(exr.read(file.subarray(0, 60))).toBeRejectedWithError(PictureRefused, /head is cut off/);
    const tiled = Buffer.from(file);
    tiled[5] = 2;
    await expectAsync(exr.read(tiled)).toBeRejectedWithError(PictureRefused, /tiles/);
    const packed = Buffer.from(file);
    packed[packed.indexOf('compression\0compression\0') + 28] = 9;
    await expectAsync(exr.read(packed)).toBeRejectedWithError(PictureRefused, /packed by DWAB, which is not read/);
    const wide = Buffer.from(file);
    wide.writeInt32LE(40_000, wide.indexOf('dataWindow\0box2i\0') + 17 + 4 + 8);
    await expectAsync(exr.read(wide)).toBeRejectedWithError(PictureRefused, /claims 40001 × 10 pixels/);
  });

  it('EXR: a good one is read after one that was damaged inside', async () => {
    const file = made('pfsinpfm in.pfm | pfsoutexr --compression ZIP out');
    await expectAsync(exr.read(Buffer.concat([file.subarray(0, file.length - 200), Buffer.alloc(120, 0xa5)]))).toBeRejectedWithError(
      PictureRefused,
    );
    expect((await exr.read(file)).picture.width).toBe(WIDTH);
  });

  it('RGBE: heads say what they are', () => {
    const { width, height, exposure } = radianceHead(made('pfsinpfm in.pfm | pfsoutrgbe --quiet out'));
    expect([width, height, exposure]).toEqual([WIDTH, HEIGHT, 1]);
  });
});
