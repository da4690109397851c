import type { Device, DeviceTexture } from '../../device/device';
import { MOST_SOURCES, type BrightSource } from '../../image/environment/bright-sources';
import type { EnvironmentPixels } from '../../image/environment/environment-pixels';
import type { Harmonics } from '../../image/environment/harmonics';
import { filterLooks, paddedLooks } from './filter-looks';
import { LEVELS, roughnessOfLevel } from './environment-levels';
import type { Value } from '../../ir/value';
import { FullScreen } from '../full-screen';
import type { OwnValues } from '../own-values';

/** What of an environment a picture needs on the device; light from all around needs nothing there. */
export interface EnvironmentNeed {
  /** To be seen as it is. */
  readonly sharp: boolean;
  /** To be mirrored by rough surfaces, or seen blurred. */
  readonly filtered: boolean;
}

export const WHOLE_ENVIRONMENT: EnvironmentNeed = { sharp: true, filtered: true };

/** An environment as far as it was needed. */
export interface ReadyEnvironment {
  readonly harmonics: Harmonics;
  /** A cube of all that is there to see, with all its levels. */
  readonly sharp?: DeviceTexture;
  /** A cube whose levels are what surfaces of `roughnessOfLevel` mirror of it. */
  readonly filtered?: DeviceTexture;
}

const LARGEST_FILTERED = 256;
const SMALLEST_SHARP = 64;
const LARGEST_SHARP = 512;
const TABLE_SIDE = 64;
const TABLE_SAMPLES = 1024;

const log2 = (value: number): number => Math.round(Math.log2(value));

/** Turns panoramas and cubes into what surfaces read: once for each, one level a task. */
export class EnvironmentPasses {
  private table?: DeviceTexture;
  private empty?: DeviceTexture;

  private readonly panorama: FullScreen;
  private readonly filter: FullScreen;
  private readonly splitSum: FullScreen;

  constructor(private readonly device: Device) {
    this.panorama = new FullScreen(device, 'environment_panorama', 'Panorama', 'environment');
    this.filter = new FullScreen(device, 'environment_filter', 'Filtering', 'environment');
    this.splitSum = new FullScreen(device, 'split_sum', 'SplitSum', 'environment');
  }

  /** Albedos of lobes, worked out when they are first wanted; see physical/energy.glsl. */
  get albedos(): DeviceTexture {
    if (this.table) return this.table;
    const { device, splitSum } = this;
    this.table = device.createTexture({ width: TABLE_SIDE, height: TABLE_SIDE, format: 'rgba16float', samples: 1 });
    const numbers = new Map([['tableSize', [TABLE_SIDE, TABLE_SAMPLES, 0, 0]]]);
    splitSum.draw(this.table, splitSum.createValues(), numbers);
    return this.table;
  }

  /** What is all around where there is nothing. */
  get nothing(): DeviceTexture {
    if (this.empty) return this.empty;
    const empty = this.device.createTexture({ width: 1, height: 1, format: 'rgba16float', samples: 1, cube: true });
    for (let face = 0; face < 6; face++) empty.write(0, new Uint16Array(4), { face });
    return (this.empty = empty);
  }

  /**
   * @param next comes back when there is time for the next piece of work
   * @param onProgress told the part that is done, 0…1
   */
  async prepare(
    pixels: EnvironmentPixels,
    need: EnvironmentNeed,
    next: () => Promise<void>,
    onProgress: (share: number) => void = () => undefined,
  ): Promise<ReadyEnvironment> {
    const { harmonics } = pixels;
    if (!need.sharp && !need.filtered) return { harmonics };
    await next();
    const sharp = await this.sharpCube(pixels, pixels.levels);
    const filtered = need.filtered ? await this.filteredCube(pixels, sharp, next, onProgress) : undefined;
    return { harmonics, sharp, filtered };
  }

  destroy({ sharp, filtered }: ReadyEnvironment): void {
    sharp?.destroy();
    filtered?.destroy();
  }

  private async filteredCube(
    pixels: EnvironmentPixels,
    sharp: DeviceTexture,
    next: () => Promise<void>,
    onProgress: (share: number) => void,
  ): Promise<DeviceTexture> {
    const dimmed = pixels.dimmed ? await this.sharpCube(pixels, pixels.dimmed) : sharp;
    const side = Math.min(LARGEST_FILTERED, sharp.width);
    const filtered = this.device.createTexture({
      width: side,
      height: side,
      format: 'rgba16float',
      samples: 1,
      cube: true,
      mipLevels: LEVELS,
    });
    const values = this.filter.createValues();
    for (let level = 0; level < LEVELS; level++) {
      await next();
      for (let face = 0; face < 6; face++) this.filterFace(level === 0 ? sharp : dimmed, filtered, { level, face }, pixels.sources, values);
      await this.device.finished();
      onProgress((level + 1) / (LEVELS + 1));
    }
    values.destroy();
    if (dimmed !== sharp) dimmed.destroy();
    return filtered;
  }

  private filterFace(
    sharp: DeviceTexture,
    filtered: DeviceTexture,
    { level, face }: { readonly level: number; readonly face: number },
    sources: readonly BrightSource[],
    values: OwnValues,
  ): void {
    const side = filtered.width >> level;
    const slots = Array.from({ length: MOST_SOURCES }, (_, index) => sources[index]);
    const alpha = roughnessOfLevel(level) ** 2;
    const looks = filterLooks(level, alpha, sharp.width);
    const numbers = new Map<string, Value>([
      ['filterFace', [face, 1 / side, alpha, sharp.width]],
      ['filterSums', [looks.looks.length, looks.cosines, looks.all, sources.length]],
      ['filterLooks', { items: paddedLooks(looks) }],
      ['sourceWays', { items: slots.map((source) => [...(source?.direction ?? [0, 1, 0]), 0]) }],
      ['sourcePowers', { items: slots.map((source) => [...(source?.power ?? [0, 0, 0]), 0]) }],
    ]);
    this.filter.draw(filtered, values, numbers, { sharpEnvironment: sharp }, { level, face });
  }

  private async sharpCube({ kind, width, height }: EnvironmentPixels, levels: EnvironmentPixels['levels']): Promise<DeviceTexture> {
    const fitting = 2 ** log2(kind === 'faces' ? width : width / 4);
    const side = Math.min(LARGEST_SHARP, Math.max(SMALLEST_SHARP, fitting));
    const cube = (size: number): DeviceTexture =>
      this.device.createTexture({ width: size, height: size, format: 'rgba16float', samples: 1, cube: true, mipLevels: log2(size) + 1 });
    if (kind === 'faces') {
      const sharp = cube(width);
      levels.forEach((pixels, face) => sharp.write(0, pixels, { face }));
      this.device.fillMips(sharp);
      return sharp;
    }
    const panorama = this.device.createTexture({
      width,
      height,
      format: 'rgba16float',
      samples: 1,
      mipLevels: Math.floor(Math.log2(Math.max(width, height))) + 1,
      sampling: { wrapX: 'repeat', wrapY: 'clamp', filter: 'smooth' },
    });
    panorama.write(0, levels[0] ?? new Uint16Array(0));
    this.device.fillMips(panorama);
    const sharp = cube(side);
    const values = this.panorama.createValues();
    for (let face = 0; face < 6; face++) {
      const numbers = new Map([['panoramaFace', [face, 1 / side, Math.max(0, Math.log2(width / (4 * side))), 0]]]);
      this.panorama.draw(sharp, values, numbers, { panorama }, { face });
    }
    this.device.fillMips(sharp);
    await this.device.finished();
    values.destroy();
    panorama.destroy();
    return sharp;
  }
}
