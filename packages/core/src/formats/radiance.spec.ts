import { PictureRefused } from '../image/float-picture';
import { isRadiance, radianceHead, readRadiance, writeRadiance } from './radiance';

const letters = (text: string): number[] => [...text].map((letter) => letter.charCodeAt(0));
const head = (size: string, lines = 'FORMAT=32-bit_rle_rgbe\n'): number[] => letters(`#?RADIANCE\n${lines}\n${size}\n`);
const file = (size: string, pixels: readonly number[], lines?: string): Uint8Array => new Uint8Array([...head(size, lines), ...pixels]);
/** 1, 0.5, 0.25 and what a mantissa’s rounding leaves. */
const GREYS = [128, 128, 128, 129];

describe('Radiance pictures', () => {
  it('are read plainly, pixel by pixel', () => {
    const { picture } = readRadiance(file('-Y 1 +X 2', [128, 64, 32, 129, 0, 0, 0, 0]), 16);
    expect([...picture.data].map((each) => Math.round(each * 100) / 100)).toEqual([1, 0.5, 0.25, 0, 0, 0]);
  });

  it('are read with the old run lengths, also where two counts stand in a row', () => {
    // One pixel, then 3 + 1·256 repeats of it.
    const { picture } = readRadiance(file('-Y 1 +X 260', [...GREYS, 1, 1, 1, 3, 1, 1, 1, 1]), 1024);
    expect(picture.data.length).toBe(780);
    expect(picture.data.every((each) => Math.abs(each - 1.004) < 0.001)).toBeTrue();
  });

  it('are read with the new run lengths: runs and plain stretches, component by component', () => {
    const row = [2, 2, 0, 8, 136, 128, 8, 1, 2, 3, 4, 5, 6, 7, 8, 136, 0, 136, 129];
    const { picture } = readRadiance(file('-Y 1 +X 8', row), 16);
    expect([...picture.data.filter((_, at) => at % 3 === 1)].map((each) => Math.round(each * 128 - 0.5))).toEqual([1, 2, 3, 4, 5, 6, 7, 8]);
    expect(picture.data[0]).toBeCloseTo(1.004, 3);
  });

  it('are turned upright, and their exposure is taken back', () => {
    const pixels = [...GREYS, 0, 0, 0, 0];
    expect(readRadiance(file('+Y 2 +X 1', pixels), 16).picture.data[3]).toBeCloseTo(1.004, 3);
    expect(readRadiance(file('-Y 1 -X 2', pixels), 16).picture.data[3]).toBeCloseTo(1.004, 3);
    const exposed = file('-Y 1 +X 2', pixels, 'FORMAT=32-bit_rle_rgbe\nEXPOSURE=2\nEXPOSURE= 2.0\n');
    expect(readRadiance(exposed, 16).picture.data[0]).toBeCloseTo(0.251, 3);
  });

  const refused: readonly (readonly [string, Uint8Array, RegExp])[] = [
    ['XYZ colours', file('-Y 1 +X 1', GREYS, 'FORMAT=32-bit_rle_xyze\n'), /CIE XYZ \(32-bit_rle_xyze\), which is not read/],
    ['another format', file('-Y 1 +X 1', GREYS, 'FORMAT=64-bit\n'), /format is “64-bit”/],
    ['no Radiance picture', new Uint8Array([1, 2, 3]), /does not begin with “#\?”/],
    ['a head without end', new Uint8Array(letters('#?RADIANCE\nFORMAT=32-bit_rle_rgbe\n')), /no empty line/],
    ['no size', file('', GREYS), /how large/],
    ['columns first', file('+X 1 -Y 1', GREYS), /up and down \(X before Y\)/],
    ['a size beyond all bounds', file('-Y 20000 +X 40000', GREYS), /claims 40000 × 20000 pixels; at most 32768/],
    ['no pixels at all', file('-Y 2 +X 2', []), /cut off or damaged at row 1 of 2/],
    ['pixels that end early', file('-Y 2 +X 2', [...GREYS, ...GREYS, ...GREYS]), /row 2 of 2/],
    ['a row of another length', file('-Y 1 +X 8', [2, 2, 0, 9, 137, 1]), /says it has 9 pixels, the head says 8/],
    ['a run beyond the row', file('-Y 1 +X 8', [2, 2, 0, 8, 140, 1]), /row 1 of 1/],
    ['a run of nothing', file('-Y 1 +X 8', [2, 2, 0, 8, 0, 1]), /row 1 of 1/],
    ['a plain stretch that is cut off', file('-Y 1 +X 8', [2, 2, 0, 8, 8, 1, 2]), /row 1 of 1/],
    ['a repeat before any pixel', file('-Y 1 +X 2', [1, 1, 1, 2]), /row 1 of 1/],
  ];
  for (const [what, bytes, words] of refused)
    it(`are refused with a reason: ${what}`, () => {
      expect(() => readRadiance(bytes, 16)).toThrowError(PictureRefused, words);
    });

  it('are made smaller on the way in, by the mean of squares, and say so', () => {
    const wide = { width: 40, height: 20, data: Float32Array.from({ length: 2400 }, (_, at) => (Math.floor(at / 3) % 2 ? 3 : 1)) };
    const shares: number[] = [];
    const { picture, words } = readRadiance(writeRadiance(wide), 10, (share) => shares.push(share));
    expect([picture.width, picture.height]).toEqual([10, 5]);
    for (const value of picture.data) expect(value).toBeCloseTo(2, 1);
    expect(words).toBe('Made smaller, from 40 × 20 to 10 × 5 pixels.');
    expect(shares).toEqual([0]);
  });

  it('come back as they were written, to their eight bits', () => {
    for (const width of [4, 9, 200]) {
      const data = Float32Array.from({ length: width * 6 * 3 }, (_, at) => (at % 5 === 0 ? 0 : 2 ** ((at % 23) - 11)));
      const bytes = writeRadiance({ width, height: 6, data });
      expect(isRadiance(bytes)).toBeTrue();
      expect(radianceHead(bytes)).toEqual(jasmine.objectContaining({ width, height: 6 }));
      const back = readRadiance(bytes, 4096).picture.data;
      for (let at = 0; at < data.length; at += 3) {
        const peak = Math.max(...data.subarray(at, at + 3));
        for (let channel = 0; channel < 3; channel++)
          expect(Math.abs((back[at + channel] ?? NaN) - (data[at + channel] ?? 0))).toBeLessThanOrEqual(peak / 128);
      }
    }
  });
});
