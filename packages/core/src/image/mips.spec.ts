import { linearFromSrgb, srgbFromLinear } from './colour-space';
import { leavesMipsToDevice, mipChain, mipLevelCount } from './mips';

const pixels = (width: number, height: number, at: (x: number, y: number) => readonly number[]) => ({
  width,
  height,
  data: Uint8Array.from(
    { length: width * height * 4 },
    (_, index) => at((index >> 2) % width, Math.floor((index >> 2) / width))[index & 3] ?? 0,
  ),
});

describe('Mips', () => {
  it('go down to one pixel', () => {
    const { levels } = mipChain(
      pixels(20, 6, () => [10, 20, 30, 255]),
      'data',
    );
    expect(levels.map((level) => level.length / 4)).toEqual([120, 30, 5, 2, 1]);
    expect(mipLevelCount(20, 6)).toBe(levels.length);
    for (const level of levels) expect([...level.subarray(0, 4)]).toEqual([10, 20, 30, 255]);
  });

  it('average colours in linear light: black and white give 188, not 128', () => {
    const checker = pixels(2, 2, (x, y) => ((x + y) % 2 ? [255, 255, 255, 255] : [0, 0, 0, 255]));
    expect(mipChain(checker, 'colour').levels[1]?.[0]).toBe(Math.round(srgbFromLinear(0.5) * 255));
    expect(mipChain(checker, 'data').levels[1]?.[0]).toBe(128);
  });

  it('weigh colours by alpha, so that what is invisible does not bleed', () => {
    const half = pixels(2, 1, (x) => (x ? [255, 0, 0, 255] : [0, 255, 0, 0]));
    expect([...(mipChain(half, 'colour').levels[1] ?? [])]).toEqual([255, 0, 0, 128]);
  });

  it('count pixels between two by their share where a side is odd', () => {
    const steps = pixels(
      3,
      1,
      (x) =>
        [
          [0, 0, 0, 255],
          [120, 0, 0, 255],
          [240, 0, 0, 255],
        ][x] ?? [],
    );
    expect(mipChain(steps, 'data').levels[1]?.[0]).toBe(120);
    const five = pixels(5, 1, (x) => [x === 2 ? 250 : 0, 0, 0, 255]);
    expect([mipChain(five, 'data').levels[1]?.[0], mipChain(five, 'data').levels[1]?.[4]]).toEqual([50, 50]);
  });

  it('keep the light of a picture, whatever the level', () => {
    const noise = pixels(37, 21, (x, y) => [(x * 37 + y * 91) % 256, (x * 11) % 256, (y * 53) % 256, 255]);
    const { levels } = mipChain(noise, 'colour');
    const mean = (level: Uint8Array): number => {
      let sum = 0;
      for (let at = 0; at < level.length; at += 4) sum += linearFromSrgb((level[at] ?? 0) / 255);
      return sum / (level.length / 4);
    };
    for (const level of levels) expect(mean(level) / mean(levels[0]!)).toBeCloseTo(1, 1);
  });

  it('are left to a device only where it makes the same', () => {
    const [square, odd] = [
      { width: 64, height: 16 },
      { width: 64, height: 24 },
    ];
    expect(leavesMipsToDevice(square, 'data', false)).toBeTrue();
    expect(leavesMipsToDevice(square, 'colour', true)).toBeTrue();
    expect(leavesMipsToDevice(square, 'colour', false)).toBeFalse();
    expect(leavesMipsToDevice(odd, 'data', true)).toBeFalse();
  });
});
