import type { Device, DeviceTexture } from '../device/device';
import { mipLevelCount } from '../image/mips';
import type { BehindTargets } from './targets';

/** What parts of a large picture have in common: found once, for the whole of it, at a size that can be drawn at once. */
export class Overview {
  /** Light that spreads from what is bright. */
  spread?: DeviceTexture;
  /** What near surfaces leave of light from all around. */
  near?: DeviceTexture;
  private readonly behinds: BehindTargets[] = [];

  constructor(private readonly device: Device) {}

  /** Room for what is seen behind another layer of what is seen through. */
  another({ colour: { width, height }, ...rest }: BehindTargets): BehindTargets {
    const mipLevels = mipLevelCount(width, height);
    const colour = this.device.createTexture({ width, height, format: 'rgba16float', samples: 1, mipLevels });
    const made = { ...rest, colour };
    this.behinds.push(made);
    return made;
  }

  /** What is seen behind a layer, by its number from 0. */
  behind(layer: number): BehindTargets | undefined {
    return this.behinds[layer];
  }

  destroy(): void {
    for (const { colour } of this.behinds) colour.destroy();
  }
}
