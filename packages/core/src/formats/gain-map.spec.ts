import { linearFromSrgb } from '../image/colour-space';
import { PictureRefused } from '../image/float-picture';
import { splitGainMap, withGains, type GainMap } from './gain-map';

const u16 = (value: number): number[] => [(value >> 8) & 255, value & 255];
const u32 = (value: number): number[] => [(value >>> 24) & 255, (value >>> 16) & 255, (value >>> 8) & 255, value & 255];
const ratio = (value: number, by = 1000): number[] => [...u32(Math.round(value * by)), ...u32(by)];

/** ISO 21496-1:2025, annex C: version, flags, headrooms, and the numbers of each channel. */
function metadata(channels: readonly (readonly [number, number, number, number, number])[], headrooms = [0, 3]): number[] {
  const [base = 0, alternate = 0] = headrooms;
  return [
    ...u16(0),
    ...u16(0),
    channels.length === 3 ? 0x80 : 0,
    ...ratio(base),
    ...ratio(alternate),
    ...channels.flatMap((each) => each.flatMap((value) => ratio(value))),
  ];
}

function segment(marker: number, content: readonly number[]): number[] {
  return [0xff, marker, ...u16(content.length + 2), ...content];
}

const NAME = [...'urn:iso:std:iso:ts:21496:-1\0'].map((letter) => letter.charCodeAt(0));

/** No picture that could be decoded, but the skeleton of one: segments, coded pixels with stuffing and restarts, an end. */
function jpeg(...segments: readonly number[][]): number[] {
  return [0xff, 0xd8, ...segments.flat(), 0xff, 0xda, 0, 4, 1, 2, 17, 0xff, 0, 18, 0xff, 0xd1, 19, 0xff, 0xd9];
}

describe('JPEG files with a gain map', () => {
  const plain = jpeg(segment(0xe0, [1, 2, 3]), segment(0xe2, [...NAME, 0, 0, 0, 0]));

  it('are taken apart: the picture, the map behind it, and its numbers', () => {
    const map = jpeg(segment(0xe2, [...NAME, ...metadata([[-1, 2, 1, 0.015, 0.02]])]));
    const found = splitGainMap(new Uint8Array([...plain, ...map]));
    expect([...found!.base]).toEqual(plain);
    expect([...found!.map]).toEqual(map);
    expect(found?.gains).toEqual({
      baseHeadroom: 0,
      alternateHeadroom: 3,
      channels: [{ least: -1, most: 2, gamma: 1, baseOffset: 0.015, alternateOffset: 0.02 }],
    });
  });

  it('may have a channel each, one denominator for all, and other pictures in between', () => {
    const each: readonly [number, number, number, number, number] = [0, 1, 2, 0, 0];
    const three = jpeg(segment(0xe2, [...NAME, ...metadata([each, each, each])]));
    expect(splitGainMap(new Uint8Array([...plain, ...jpeg(segment(0xe1, [9])), ...three]))?.gains.channels.length).toBe(3);
    const common = [...u16(0), ...u16(0), 0x08, ...u32(100), ...u32(0), ...u32(200), ...[0, 150, 100, 1, 2].flatMap(u32)];
    const shared = splitGainMap(new Uint8Array([...plain, ...jpeg(segment(0xe2, [...NAME, ...common]))]));
    expect(shared?.gains).toEqual({
      baseHeadroom: 0,
      alternateHeadroom: 2,
      channels: [{ least: 0, most: 1.5, gamma: 1, baseOffset: 0.01, alternateOffset: 0.02 }],
    });
  });

  it('are left alone where there is none', () => {
    expect(splitGainMap(new Uint8Array(plain))).toBeUndefined();
    expect(splitGainMap(new Uint8Array([...plain, ...jpeg(segment(0xe1, [9]))]))).toBeUndefined();
    expect(splitGainMap(new Uint8Array([0x89, 0x50, 1, 2]))).toBeUndefined();
    expect(splitGainMap(new Uint8Array(plain.slice(0, 30)))).toBeUndefined();
  });

  for (const [what, content] of [
    ['cut off', metadata([[0, 1, 1, 0, 0]]).slice(0, 30)],
    [
      'without a denominator',
      [...u16(0), ...u16(0), 0, ...u32(1), ...u32(0), ...ratio(2), ...[0, 1, 1, 0, 0].flatMap((value) => ratio(value))],
    ],
    ['with a gamma of nothing', metadata([[0, 1, 0, 0, 0]])],
    ['of a later version', [...u16(3), ...metadata([[0, 1, 1, 0, 0]]).slice(2)]],
  ] as const)
    it(`are refused with a reason where the numbers are ${what}`, () => {
      const bytes = new Uint8Array([...plain, ...jpeg(segment(0xe2, [...NAME, ...content]))]);
      expect(() => splitGainMap(bytes)).toThrowError(PictureRefused, /gain map/);
    });
});

describe('A gain map', () => {
  const picture = (width: number, height: number, values: readonly number[]) => ({
    width,
    height,
    data: new Uint8Array(values.flatMap((value) => [value, value, value, 255])),
  });
  const gains = (changes: Partial<GainMap['channels'][number]> = {}): GainMap => ({
    baseHeadroom: 0,
    alternateHeadroom: 3,
    channels: [{ least: 0, most: 3, gamma: 1, baseOffset: 0, alternateOffset: 0, ...changes }],
  });

  it('brightens by powers of two between its least and its most', () => {
    const { data } = withGains(picture(3, 1, [188, 188, 188]), picture(3, 1, [0, 255, 85]), gains());
    const grey = linearFromSrgb(188 / 255);
    expect([data[0], data[3], data[6]]).toEqual([grey, grey * 8, grey * 2].map((each) => jasmine.any(Number) && Math.fround(each)));
  });

  it('takes its gamma and its offsets into account', () => {
    const { data } = withGains(picture(1, 1, [255]), picture(1, 1, [64]), gains({ gamma: 0.5, baseOffset: 0.1, alternateOffset: 0.2 }));
    expect(data[0]).toBeCloseTo(1.1 * 2 ** (3 * (64 / 255) ** 2) - 0.2, 5);
  });

  it('is smooth where it is smaller than its picture, and does nothing to a picture that is the bright one', () => {
    const { data } = withGains(picture(4, 1, [255, 255, 255, 255]), picture(2, 1, [0, 255]), gains());
    expect([data[0], data[9]]).toEqual([1, 8]);
    expect(data[3]).toBeCloseTo(2 ** 0.75, 5);
    const bright = { ...gains(), baseHeadroom: 4, alternateHeadroom: 0 };
    expect(withGains(picture(1, 1, [255]), picture(1, 1, [255]), bright).data[0]).toBe(1);
  });
});
