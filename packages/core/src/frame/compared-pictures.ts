import type { Device, DeviceTexture } from '../device/device';
import { pictureDifference, type PictureDifference } from '../image/picture-difference';
import { FullScreen } from './full-screen';
import type { OwnValues } from './own-values';
import type { PictureSize } from './picture-part';

export const COMPARE_MODES = ['beside', 'wipe', 'difference'] as const;

/** How two pictures are shown in one. */
export interface CompareView {
  readonly mode: (typeof COMPARE_MODES)[number];
  /** Where the wipe is, 0…1 from the left. */
  readonly split: number;
  /** What the difference is multiplied by. */
  readonly gain: number;
}

/** Two finished pictures of one size, and the one they make. */
export class ComparedPictures {
  private readonly program: FullScreen;
  private readonly values: OwnValues;
  private pictures?: readonly [DeviceTexture, DeviceTexture];

  constructor(private readonly device: Device) {
    this.program = new FullScreen(device, 'compare', 'Compare', 'compare');
    this.values = this.program.createValues();
  }

  /** What to draw the two pictures into; `size` is that of one. */
  targets(size: PictureSize): readonly [DeviceTexture, DeviceTexture] {
    const { width, height } = this.pictures?.[0] ?? {};
    if (this.pictures && width === size.width && height === size.height) return this.pictures;
    this.free();
    const texture = (): DeviceTexture =>
      this.device.createTexture({ width: size.width, height: size.height, format: 'rgba8unorm', samples: 1 });
    return (this.pictures = [texture(), texture()]);
  }

  show({ mode, split, gain }: CompareView, target: 'canvas' | DeviceTexture, size: PictureSize): void {
    if (!this.pictures) return;
    const [firstPicture, secondPicture] = this.pictures;
    const values = new Map([
      ['compareView', [COMPARE_MODES.indexOf(mode), split, gain, 0]],
      ['compareSize', [size.width, size.height, firstPicture.width, 0]],
    ]);
    this.program.draw(target, this.values, values, { firstPicture, secondPicture });
  }

  /** Of the pictures as they were drawn last. */
  async difference(): Promise<PictureDifference | undefined> {
    if (!this.pictures) return undefined;
    const [first, second] = await Promise.all(this.pictures.map((each) => this.device.readPixels(each)));
    return first && second && pictureDifference(first, second);
  }

  /** Gives the memory of the pictures back. */
  free(): void {
    for (const each of this.pictures ?? []) each.destroy();
    this.pictures = undefined;
  }
}

/** The size of each of two pictures that are shown in one of this size. */
export function sideSize({ width, height }: PictureSize, { mode }: Pick<CompareView, 'mode'>): PictureSize {
  return mode === 'beside' ? { width: Math.max(1, Math.floor(width / 2)), height } : { width, height };
}
