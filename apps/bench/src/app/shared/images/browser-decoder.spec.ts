import { decodedByBrowser } from './browser-decoder';

/** CRC of PNG, Third Edition, annex D. */
function crc(bytes: Uint8Array): number {
  let value = 0xffffffff;
  for (const byte of bytes) {
    value ^= byte;
    for (let bit = 0; bit < 8; bit++) value = value & 1 ? 0xedb88320 ^ (value >>> 1) : value >>> 1;
  }
  return (value ^ 0xffffffff) >>> 0;
}

function chunk(name: string, content: Uint8Array): Uint8Array {
  const bytes = new Uint8Array(content.length + 12);
  const view = new DataView(bytes.buffer);
  view.setUint32(0, content.length);
  bytes.set(new TextEncoder().encode(name), 4);
  bytes.set(content, 8);
  view.setUint32(content.length + 8, crc(bytes.subarray(4, content.length + 8)));
  return bytes;
}

async function deflated(bytes: Uint8Array<ArrayBuffer>): Promise<Uint8Array> {
  const stream = new Blob([bytes]).stream().pipeThrough(new CompressionStream('deflate'));
  return new Uint8Array(await new Response(stream).arrayBuffer());
}

/** A PNG file: `kind` and `bits` as its head tells them, rows without filters. */
async function png(
  width: number,
  height: number,
  { kind, bits, rows, more = [] }: { kind: number; bits: number; rows: (y: number) => ArrayLike<number>; more?: readonly Uint8Array[] },
): Promise<ArrayBuffer> {
  const head = new Uint8Array(13);
  new DataView(head.buffer).setUint32(0, width);
  new DataView(head.buffer).setUint32(4, height);
  head.set([bits, kind, 0, 0, 0], 8);
  const lines = Array.from({ length: height }, (_, y) => [0, ...Array.from(rows(y))]).flat();
  const parts = [
    new Uint8Array([137, 80, 78, 71, 13, 10, 26, 10]),
    chunk('IHDR', head),
    ...more,
    chunk('IDAT', await deflated(Uint8Array.from(lines))),
    chunk('IEND', new Uint8Array()),
  ];
  return new Blob(parts as BlobPart[]).arrayBuffer();
}

/** The bytes that went in must come out: nothing may be multiplied, converted or rounded on the way. */
describe('The browser as a decoder of PNG', () => {
  const SIDE = 64;
  const noise = (y: number, channels: number): number[] =>
    Array.from({ length: SIDE * channels }, (_, x) => (x * 37 + y * 101 + x * y * 7) % 256);
  const decoded = async (file: ArrayBuffer): Promise<number[]> => [...((await decodedByBrowser(file, 'image/png'))?.data ?? [])];

  it('leaves what has alpha to libraries, unless all of it is opaque', async () => {
    const clear = await png(SIDE, SIDE, { kind: 6, bits: 8, rows: (y) => noise(y, 4) });
    expect(await decodedByBrowser(clear, 'image/png')).toBeUndefined();
    const opaque = (y: number): number[] => noise(y, 4).map((value, at) => (at % 4 === 3 ? 255 : value));
    const file = await png(SIDE, SIDE, { kind: 6, bits: 8, rows: opaque });
    expect(await decoded(file)).toEqual(Array.from({ length: SIDE }, (_, y) => opaque(y)).flat());
  });

  it('takes no notice of what a file says of its colours', async () => {
    const gamma = new Uint8Array(4);
    new DataView(gamma.buffer).setUint32(0, 100_000);
    const primaries = new Uint8Array(32);
    [31270, 32900, 70800, 29200, 17000, 79700, 13100, 4600].forEach((value, at) => new DataView(primaries.buffer).setUint32(at * 4, value));
    const more = [chunk('gAMA', gamma), chunk('cHRM', primaries)];
    const file = await png(SIDE, SIDE, { kind: 2, bits: 8, rows: (y) => noise(y, 3), more });
    const stored = Array.from({ length: SIDE }, (_, y) => noise(y, 3).flatMap((value, x) => (x % 3 === 2 ? [value, 255] : [value]))).flat();
    expect(await decoded(file)).toEqual(stored);
  });

  it('reads palettes and greys of few bits', async () => {
    const palette = chunk('PLTE', Uint8Array.of(10, 20, 30, 200, 100, 50));
    const file = await png(8, 1, { kind: 3, bits: 1, rows: () => [0b01100101], more: [palette] });
    const [dark, light] = [
      [10, 20, 30, 255],
      [200, 100, 50, 255],
    ];
    expect(await decoded(file)).toEqual([0, 1, 1, 0, 0, 1, 0, 1].flatMap((at) => (at ? light : dark)));
  });

  it('leaves what has more bits, and files of other kinds, to libraries', async () => {
    const deep = await png(2, 1, { kind: 0, bits: 16, rows: () => [1, 2, 3, 4] });
    expect(await decodedByBrowser(deep, 'image/png')).toBeUndefined();
    expect(await decodedByBrowser(deep, 'image/jpeg')).toBeUndefined();
  });

  it('refuses a file that is cut off', async () => {
    const file = await png(SIDE, SIDE, { kind: 6, bits: 8, rows: (y) => noise(y, 4) });
    await expectAsync(decodedByBrowser(file.slice(0, file.byteLength / 2), 'image/png')).toBeRejected();
  });
});
