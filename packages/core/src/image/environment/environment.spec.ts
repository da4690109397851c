import { generatedEnvironment, GENERATED_ENVIRONMENTS, panoramaOf } from './generated/generated-environment';
import { halfValue } from '../half';
import { PictureRefused, type FloatPicture } from '../float-picture';
import { withoutSources } from './bright-sources';
import { CUBE_FACES, faceDirection, faceSolidAngle, panoramaDirection, panoramaSolidAngle } from './directions';
import { facesPixels, panoramaPixels, resized } from './environment-pixels';
import { facesHarmonics, harmonicsAt, panoramaHarmonics, type Harmonics } from './harmonics';
import { facesByName } from './six-names';

type Direction = readonly [number, number, number];

function lightAt(harmonics: Harmonics, direction: Direction): number[] {
  const basis = harmonicsAt(direction);
  return [0, 1, 2].map((channel) => harmonics.reduce((sum, colour, index) => sum + (colour[channel] ?? 0) * (basis[index] ?? 0), 0));
}

function facesOf(sky: (direction: Direction) => readonly [number, number, number], side: number): FloatPicture[] {
  return CUBE_FACES.map((_, face) => {
    const data = new Float32Array(side * side * 3);
    for (let y = 0; y < side; y++)
      for (let x = 0; x < side; x++) data.set(sky(faceDirection(face, (x + 0.5) / side, (y + 0.5) / side)), (y * side + x) * 3);
    return { width: side, height: side, data };
  });
}

const largest = (values: Iterable<number>): number => {
  let most = -Infinity;
  for (const value of values) most = Math.max(most, value);
  return most;
};

const flat = (width: number, height: number, value: number): FloatPicture => ({
  width,
  height,
  data: new Float32Array(width * height * 3).fill(value),
});

describe('Directions of environments', () => {
  it('put the middle of a panorama along −z, its right along +x, its top up', () => {
    const near = (a: readonly number[], b: readonly number[]): void =>
      a.forEach((each, axis) => expect(each).toBeCloseTo(b[axis] ?? NaN, 6));
    near(panoramaDirection(0.5, 0.5), [0, 0, -1]);
    near(panoramaDirection(0.75, 0.5), [1, 0, 0]);
    near(panoramaDirection(0.3, 0), [0, 1, 0]);
    const middles = CUBE_FACES.map((_, face) => faceDirection(face, 0.5, 0.5));
    expect(middles.map((each) => each.map((part) => Math.round(part) + 0))).toEqual([
      [1, 0, 0],
      [-1, 0, 0],
      [0, 1, 0],
      [0, -1, 0],
      [0, 0, 1],
      [0, 0, -1],
    ]);
    // The upper edge of the faces at the sides is up.
    for (const face of [0, 1, 4, 5]) expect(faceDirection(face, 0.5, 0)[1]).toBeGreaterThan(0.7);
  });

  it('cover the whole sphere once', () => {
    let [faces, panorama] = [0, 0];
    for (let y = 0; y < 32; y++) for (let x = 0; x < 32; x++) faces += 6 * faceSolidAngle(32, (x + 0.5) / 32, (y + 0.5) / 32);
    for (let row = 0; row < 40; row++) panorama += 80 * panoramaSolidAngle(80, 40, row);
    expect(faces).toBeCloseTo(4 * Math.PI, 2);
    expect(panorama).toBeCloseTo(4 * Math.PI, 6);
  });
});

describe('Light from all around as nine coefficients', () => {
  it('is that of an analytic sky: brighter above, a straight slope', () => {
    // Radiance 1 + y gives E/π = 1 + 2y/3 (the integral of the cosine lobe over a linear function).
    const harmonics = panoramaHarmonics(panoramaOf(([, y]) => [1 + y, 2, 0.5 + 0.5 * y], 128));
    for (const direction of [
      [0, 1, 0],
      [0, -1, 0],
      [1, 0, 0],
      [0.6, 0.8, 0],
    ] as const) {
      const [red = NaN, green = NaN, blue = NaN] = lightAt(harmonics, direction);
      expect(red).toBeCloseTo(1 + (2 / 3) * direction[1], 3);
      expect(green).toBeCloseTo(2, 3);
      expect(blue).toBeCloseTo(0.5 + direction[1] / 3, 3);
    }
  });

  it('is that of a quadratic sky, which they still hold exactly', () => {
    // Radiance x² gives E/π = 1/4 + x²/4.
    const harmonics = panoramaHarmonics(panoramaOf(([x]) => [x * x, x * x, x * x], 256));
    for (const direction of [
      [1, 0, 0],
      [0, 1, 0],
      [0.6, 0, 0.8],
    ] as const)
      expect(lightAt(harmonics, direction)[0]).toBeCloseTo(0.25 + direction[0] ** 2 / 4, 2.6);
  });

  it('is the same of six faces as of a panorama', () => {
    const sky = ([x, y, z]: Direction): [number, number, number] => [1 + x, 0.5 + y * y, 1 - 0.5 * z];
    const [one, other] = [panoramaHarmonics(panoramaOf(sky, 256)), facesHarmonics(facesOf(sky, 64))];
    one.forEach((colour, index) => colour.forEach((each, channel) => expect(other[index]?.[channel]).toBeCloseTo(each, 2.5)));
  });
});

describe('What is far brighter than the rest', () => {
  const sun = ([x, y, z]: Direction): [number, number, number] =>
    x * 0.6 + y * 0.8 > 0.9997 ? [9000, 8000, 7000] : [0.5 + 0.1 * z, 0.5, 0.5];
  const looking = (picture: FloatPicture) => ({
    picture,
    direction: (x: number, y: number) => panoramaDirection((x + 0.5) / picture.width, (y + 0.5) / picture.height),
    angle: (_: number, y: number) => panoramaSolidAngle(picture.width, picture.height, y),
    round: picture.width,
  });

  it('is taken out as directions, and no light is lost', () => {
    const picture = panoramaOf(sun, 512);
    const { dimmed, sources } = withoutSources([looking(picture)]);
    expect(sources.length).toBeGreaterThan(0);
    for (const { direction } of sources) expect((direction[0] ?? 0) * 0.6 + (direction[1] ?? 0) * 0.8).toBeGreaterThan(0.999);
    expect(largest(dimmed[0]!.data)).toBeLessThan(20);
    const sum = (data: Float32Array): number =>
      data.reduce((total, each, at) => (at % 3 === 0 ? total + each * panoramaSolidAngle(512, 256, Math.floor(at / 3 / 512)) : total), 0);
    const taken = sources.reduce((total, { power }) => total + (power[0] ?? 0), 0);
    expect(sum(dimmed[0]!.data) + taken).toBeCloseTo(sum(picture.data), 4);
  });

  it('is not looked for where nothing is, and kept to a few where much is', () => {
    const calm = flat(16, 8, 0.7);
    expect(withoutSources([looking(calm)])).toEqual({ dimmed: [calm], sources: [] });
    // Lamps everywhere.
    const many = panoramaOf(
      ([x, y, z]) => (Math.sin(x * 40) * Math.sin(y * 40) * Math.sin(z * 40) > 0.6 ? [300, 300, 300] : [0.01, 0.01, 0.01]),
      256,
    );
    expect(withoutSources([looking(many)]).sources.length).toBeLessThanOrEqual(64);
  });
});

describe('Environments on their way to a device', () => {
  it('keep their numbers as half floats, the brightest too', () => {
    const { levels, width, height, words, dimmed, sources } = panoramaPixels(generatedEnvironment('quay-at-dusk', 512));
    expect([width, height, words, levels[0]?.length]).toEqual([512, 256, [], 512 * 256 * 4]);
    expect(largest(Array.from(levels[0]!, halfValue))).toBeGreaterThan(1000);
    expect(largest(Array.from(dimmed![0]!, halfValue))).toBeLessThan(50);
    expect(sources.length).toBeGreaterThan(0);
  });

  it('mend what no light can be, and say so', () => {
    const odd = flat(4, 2, 1);
    odd.data.set([NaN, -3, 1e9, Infinity], 2);
    const { levels, words } = panoramaPixels(odd);
    expect(words.join(' ')).toContain('2 values were negative or no number and count as 0.');
    expect(words.join(' ')).toContain('2 values were brighter than 65504');
    expect([2, 4, 5, 6].map((at) => halfValue(levels[0]![at]!))).toEqual([0, 0, 65504, 65504]);
  });

  it('are made smaller, or say that they are stretched', () => {
    const wide = panoramaPixels(flat(4100, 2050, 0.5), ['Read.']);
    expect([wide.width, wide.height]).toEqual([1367, 684]);
    expect(panoramaPixels(flat(30, 20, 1)).words).toEqual(['It is 30 × 20; all around is twice as wide as high, so it is stretched.']);
    expect(wide.words[0]).toBe('Read.');
    expect(() => panoramaPixels(flat(1, 1, 1))).toThrowError(PictureRefused, /too small/);
  });

  it('take six squares of one size, brought to a power of two', () => {
    const six = Array.from({ length: 6 }, (_, face) => flat(100, 100, face + 1));
    const { kind, width, levels, words } = facesPixels(six);
    expect([kind, width, levels.length, words]).toEqual(['faces', 128, 6, ['Made 128 × 128 each, from 100 × 100.']]);
    expect(levels.map((level) => halfValue(level[0]!))).toEqual([1, 2, 3, 4, 5, 6]);
    expect(facesPixels(six.map(() => flat(64, 64, 1))).words).toEqual([]);
    expect(() => facesPixels(six.slice(1))).toThrowError(PictureRefused, /six images; these are 5/);
    expect(() => facesPixels([...six.slice(1), flat(64, 64, 1)], ['a', 'b', 'c', 'd', 'e', 'back.png'])).toThrowError(
      PictureRefused,
      /back\.png is 64 × 64, the first one 100 × 100/,
    );
    expect(() => facesPixels([flat(64, 32, 1), ...six.slice(1)])).toThrowError(
      PictureRefused,
      /Image 1 is 64 × 32: the faces of a cube are squares/,
    );
  });

  it('grow and shrink by means', () => {
    const data = Float32Array.from([1, 1, 1, 3, 3, 3, 5, 5, 5, 7, 7, 7]);
    expect([...resized({ width: 2, height: 2, data }, 1).data]).toEqual([4, 4, 4]);
    expect(resized({ width: 2, height: 2, data }, 4, 2).data.length).toBe(24);
  });
});

describe('Six file names', () => {
  const cases: readonly (readonly [string, readonly string[], readonly number[] | undefined])[] = [
    ['px …', ['sky_nz.png', 'sky_px.png', 'sky_nx.png', 'sky_py.png', 'sky_ny.png', 'sky_pz.png'], [1, 2, 3, 4, 5, 0]],
    ['posx …', ['posx.jpg', 'negx.jpg', 'posy.jpg', 'negy.jpg', 'posz.jpg', 'negz.jpg'], [0, 1, 2, 3, 4, 5]],
    ['words', ['Right.PNG', 'Left.PNG', 'Top.PNG', 'Bottom.PNG', 'Front.PNG', 'Back.PNG'], [0, 1, 2, 3, 4, 5]],
    ['letters', ['night_bk.png', 'night_ft.png', 'night_dn.png', 'night_up.png', 'night_lf.png', 'night_rt.png'], [5, 4, 3, 2, 1, 0]],
    ['numbers', ['c0.png', 'c1.png', 'c2.png', 'c3.png', 'c4.png', 'c5.png'], [0, 1, 2, 3, 4, 5]],
    ['no sides', ['a.png', 'b.png', 'c.png', 'd.png', 'e.png', 'f.png'], undefined],
    ['one twice', ['px.png', 'x_px.png', 'py.png', 'ny.png', 'pz.png', 'nz.png'], undefined],
    ['words inside of words', ['bright.png', 'cleft.png', 'stop.png', 'xbottom.png', 'afront.png', 'hunchback.png'], undefined],
    ['five', ['px.png', 'nx.png', 'py.png', 'ny.png', 'pz.png'], undefined],
  ];
  for (const [what, names, expected] of cases)
    it(`are a cube, or not: ${what}`, () => {
      expect(facesByName(names)).toEqual(expected as number[] | undefined);
    });
});

describe('The loft’s environments', () => {
  for (const name of GENERATED_ENVIRONMENTS)
    it(`${name}: is finite, goes round without a seam, and is the same every time`, () => {
      const picture = generatedEnvironment(name, 128);
      expect(picture.data.every((each) => Number.isFinite(each) && each >= 0)).toBeTrue();
      expect(generatedEnvironment(name, 128).data).toEqual(picture.data);
      let [seam, inside] = [0, 0];
      for (let y = 2; y < 62; y++)
        for (let x = 0; x < 128; x++) {
          const step = Math.abs((picture.data[(y * 128 + x) * 3] ?? 0) - (picture.data[(y * 128 + ((x + 1) % 128)) * 3] ?? 0));
          if (x === 127) seam += Math.min(step, 1);
          else inside += Math.min(step, 1) / 127;
        }
      expect(seam).toBeLessThan(inside * 3 + 0.6);
    });
});
