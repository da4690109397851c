import type { LightRig } from '@brelvin/contract';
import type { Device, DeviceTexture } from '../device/device';
import { FullScreen } from './full-screen';
import type { OwnValues } from './own-values';
import type { PictureSize } from './picture-part';

/** Halvings of a picture in its CSS pixels; one that is drawn larger has more, so that light spreads as far in it. */
const USUAL_LEVELS = 6;
const MOST_LEVELS = 10;
const SMALLEST_SIDE = 8;

interface Level {
  readonly down: DeviceTexture;
  readonly up: DeviceTexture;
  readonly downValues: OwnValues;
  readonly upValues: OwnValues;
}

/** Light that spreads round what is bright: halved again and again, then brought back up level by level. */
export class BloomPasses {
  private levels: readonly Level[] = [];
  private size: PictureSize = { width: 0, height: 0 };
  private most = 0;

  private readonly up: FullScreen;

  /** @param down the program `bloom_down` */
  constructor(
    private readonly device: Device,
    private readonly down: FullScreen,
  ) {
    this.up = new FullScreen(device, 'bloom_up', 'BloomUp', 'bloom');
  }

  /**
   * The spread light at half the scene's size; nothing where a picture is too small to show any.
   *
   * @param larger how many times as high as in CSS pixels the scene is
   */
  draw(scene: DeviceTexture, { bloom, exposure }: LightRig, larger: number): DeviceTexture | undefined {
    const most = Math.round(USUAL_LEVELS + Math.log2(Math.max(larger, 1e-3)));
    this.resizeTo(scene, Math.min(Math.max(most, 1), MOST_LEVELS));
    let source = scene;
    this.levels.forEach(({ down, downValues }, index) => {
      const first = index === 0;
      const values = new Map([
        ['sourceStep', [1 / source.width, 1 / source.height, first ? bloom.from : 0, first ? 2 ** exposure : 1]],
        ['targetExtent', [down.width, down.height, 0, 0]],
      ]);
      this.down.draw(down, downValues, values, { brighter: source });
      source = down;
    });
    for (const { down, up, upValues } of [...this.levels].reverse().slice(1)) {
      const values = new Map([
        ['smallerStep', [1 / source.width, 1 / source.height, 0, 0]],
        ['upExtent', [up.width, up.height, 0, 0]],
      ]);
      this.up.draw(up, upValues, values, { smaller: source, same: down });
      source = up;
    }
    return this.levels.length > 0 ? source : undefined;
  }

  /** One chain is alive at a time, of the size that was drawn last. */
  private resizeTo({ width, height }: PictureSize, most: number): void {
    if (width === this.size.width && height === this.size.height && most === this.most) return;
    for (const { down, up, downValues, upValues } of this.levels) for (const each of [down, up, downValues, upValues]) each.destroy();
    const levels: Level[] = [];
    let [wide, tall] = [Math.floor(width / 2), Math.floor(height / 2)];
    while (levels.length < most && Math.min(wide, tall) >= SMALLEST_SIDE) {
      const texture = (): DeviceTexture => this.device.createTexture({ width: wide, height: tall, format: 'rgba16float', samples: 1 });
      levels.push({ down: texture(), up: texture(), downValues: this.down.createValues(), upValues: this.up.createValues() });
      [wide, tall] = [Math.floor(wide / 2), Math.floor(tall / 2)];
    }
    this.levels = levels;
    this.size = { width, height };
    this.most = most;
  }
}
