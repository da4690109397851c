import {
  ENVIRONMENT_LEVELS,
  EnvironmentPasses,
  faceDirection,
  faceSolidAngle,
  generatedEnvironment,
  panoramaDirection,
  panoramaPixels,
  panoramaSolidAngle,
  roughnessOfLevel,
  WHOLE_ENVIRONMENT,
  type DeviceTexture,
  type FloatPicture,
  type ReadyEnvironment,
  type Device,
} from '@brelvin/core';
import { albedosByHand } from '../../core/src/testing/quadrature';
import { openDevice } from './testing/open-device';

const nextTask = async (): Promise<void> => undefined;

/** Pixels of a cube's largest level, with where they look and how much of the sphere they are. */
interface CubePixels {
  readonly side: number;
  readonly directions: Float32Array;
  readonly angles: Float32Array;
  readonly colours: Float32Array;
}

async function pixelsOf(device: Device, cube: DeviceTexture, level: number): Promise<CubePixels> {
  const side = cube.width >> level;
  const directions = new Float32Array(side * side * 18);
  const angles = new Float32Array(side * side * 6);
  const colours = new Float32Array(side * side * 18);
  for (let face = 0; face < 6; face++) {
    const read = await device.readFloats(cube, level, face);
    for (let at = 0; at < side * side; at++) {
      const [s, t] = [((at % side) + 0.5) / side, (Math.floor(at / side) + 0.5) / side];
      const to = face * side * side + at;
      directions.set(faceDirection(face, s, t), to * 3);
      angles[to] = faceSolidAngle(side, s, t);
      colours.set(read.subarray(at * 4, at * 4 + 3), to * 3);
    }
  }
  return { side, directions, angles, colours };
}

function pixelsOfPanorama({ width, height, data }: FloatPicture): Omit<CubePixels, 'side'> {
  const directions = new Float32Array(data.length);
  const angles = new Float32Array(width * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      directions.set(panoramaDirection((x + 0.5) / width, (y + 0.5) / height), (y * width + x) * 3);
      angles[y * width + x] = panoramaSolidAngle(width, height, y);
    }
  return { directions, angles, colours: data };
}

/** The sum that the filter takes samples of: light by the GGX density of the half vector and the cosine, all of the sphere. */
function byHand(
  { directions, angles, colours }: Omit<CubePixels, 'side'>,
  [nx, ny, nz]: readonly [number, number, number],
  roughness: number,
): number[] {
  const alpha2 = roughness ** 4;
  const sum = [0, 0, 0];
  let weights = 0;
  for (let at = 0; at < angles.length; at++) {
    const cosine = nx * directions[at * 3]! + ny * directions[at * 3 + 1]! + nz * directions[at * 3 + 2]!;
    if (cosine <= 0) continue;
    // Of the half vector between the normal and the light: its squared cosine is half of one more than the light's.
    const half2 = (1 + cosine) / 2;
    const weight = (angles[at]! * cosine * alpha2) / (half2 * (alpha2 - 1) + 1) ** 2;
    weights += weight;
    for (let channel = 0; channel < 3; channel++) sum[channel]! += colours[at * 3 + channel]! * weight;
  }
  return sum.map((each) => each / weights);
}

describe('Environments on a real device', () => {
  let device: Device;
  let passes: EnvironmentPasses;

  beforeAll(async () => {
    device = await openDevice(4);
    passes = new EnvironmentPasses(device);
  });

  afterAll(() => device.destroy());

  /** The largest difference of each level to the sum by hand, as a part of the value there or of the level's mean, whichever is more. */
  async function errors(picture: FloatPicture): Promise<{ worst: number[]; ready: ReadyEnvironment }> {
    const ready = await passes.prepare(panoramaPixels(picture), WHOLE_ENVIRONMENT, nextTask);
    const from = pixelsOfPanorama(picture);
    const worst: number[] = [];
    for (let level = 1; level < ENVIRONMENT_LEVELS; level++) {
      const filtered = await pixelsOf(device, ready.filtered!, level);
      const count = filtered.angles.length;
      const mean = filtered.colours.reduce((sum, each) => sum + each, 0) / (count * 3);
      let largest = 0;
      const brightest = filtered.colours.reduce((best, each, at) => (each > filtered.colours[best]! ? at : best), 0);
      const chosen = [...Array.from({ length: 24 }, (_, index) => Math.floor(((index + 0.37) * count) / 24)), Math.floor(brightest / 3)];
      for (const at of chosen) {
        const [x = 0, y = 0, z = 0] = filtered.directions.subarray(at * 3, at * 3 + 3);
        byHand(from, [x, y, z], roughnessOfLevel(level)).forEach((expected, channel) => {
          const found = filtered.colours[at * 3 + channel]!;
          largest = Math.max(largest, Math.abs(found - expected) / Math.max(expected, mean));
        });
      }
      worst.push(largest);
    }
    return { worst, ready };
  }

  it('are filtered like the sum by hand: within one percent under a smooth sky', async () => {
    const width = 256;
    const data = new Float32Array(width * (width / 2) * 3);
    for (let y = 0; y < width / 2; y++)
      for (let x = 0; x < width; x++) {
        const [around, up] = [(x / width) * 2 * Math.PI, Math.cos(((y + 0.5) / (width / 2)) * Math.PI)];
        data.set([1 + 0.8 * up, 0.6 + 0.3 * Math.sin(around), 0.5 + 0.4 * up * up], (y * width + x) * 3);
      }
    const { worst } = await errors({ width, height: width / 2, data });
    expect(Math.max(...worst)).toBeLessThan(0.01);
  });

  it('are filtered within five percent with the sun in them', async () => {
    const { worst } = await errors(generatedEnvironment('quay-at-dusk', 512));
    expect(Math.max(...worst)).toBeLessThan(0.05);
  });
});

describe('The table of albedos', () => {
  it('is that of quadrature, from glancing to facing, smooth to rough', async () => {
    const device = await openDevice(4);
    const table = new EnvironmentPasses(device).albedos;
    const read = await device.readFloats(table);
    const side = table.width;
    for (const [x, y] of [
      [4, 4],
      [20, 20],
      [63, 10],
      [40, 40],
      [12, 50],
      [63, 63],
      [30, 63],
    ] as const) {
      const found = read.subarray((y * side + x) * 4, (y * side + x) * 4 + 3);
      albedosByHand((x / (side - 1)) ** 2, y / (side - 1), 16).forEach((expected, channel) =>
        expect(Math.abs((found[channel] ?? NaN) - expected))
          .withContext(`${x} ${y} ${channel}`)
          .toBeLessThan(0.004),
      );
    }
    device.destroy();
  });
});

describe('A context that is lost in the middle', () => {
  it('leaves preparing to come to an end, and another device starts anew', async () => {
    const lost = await openDevice(4);
    const passes = new EnvironmentPasses(lost);
    const pixels = panoramaPixels(generatedEnvironment('loft-window', 256));
    let steps = 0;
    const prepared = passes.prepare(pixels, WHOLE_ENVIRONMENT, async () => {
      if (++steps === 3) lost.destroy();
    });
    await expectAsync(prepared).toBeResolved();
    expect(steps)
      .withContext('before the cube, and before each level of it')
      .toBe(1 + ENVIRONMENT_LEVELS);
    const device = await openDevice(4);
    const ready = await new EnvironmentPasses(device).prepare(pixels, WHOLE_ENVIRONMENT, nextTask);
    const [red = NaN] = await device.readFloats(ready.filtered!, 3, 2);
    expect(red).toBeGreaterThan(0.05);
    device.destroy();
  });
});
