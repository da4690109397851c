import type { Device, DrawCall } from '../device/device';
import { FullScreen } from './full-screen';
import type { OwnValues } from './own-values';
import type { RenderTargets } from './targets';

/**
 * Lays things over the picture in no order: their light is added up weighed by how near it is, their cover multiplied, and
 * both are put over what is there. McGuire, Bavoil 2013, "Weighted blended order-independent transparency", JCGT 2(2).
 */
export class WeightedOit {
  private readonly over: FullScreen;
  private readonly values: OwnValues;

  constructor(private readonly device: Device) {
    this.over = new FullScreen(device, 'gathered', 'Gathered', 'seen through', 'over');
    this.values = this.over.createValues();
  }

  /**
   * @param light drawings by programs that write weighed light
   * @param cover of the same things, by programs that write weights and cover
   */
  draw(targets: RenderTargets, light: readonly DrawCall[], cover: readonly DrawCall[]): void {
    const { device } = this;
    const gathered = targets.gathered;
    device.runPass({
      label: 'seen through',
      colour: gathered.light,
      depth: targets.depth,
      clear: [0, 0, 0, 0],
      keepsDepth: true,
      draws: light,
    });
    device.runPass({
      label: 'seen through',
      colour: gathered.cover,
      depth: targets.depth,
      clear: [0, 0, 0, 1],
      keepsDepth: true,
      draws: cover,
    });
    if (targets.samples > 1) {
      device.resolve(gathered.light, gathered.resolvedLight);
      device.resolve(gathered.cover, gathered.resolvedCover);
    }
    const { width, height } = targets.size;
    const textures = { gatheredLight: gathered.resolvedLight, gatheredCover: gathered.resolvedCover };
    const values = new Map([['gatheredSize', [1 / width, 1 / height, 0, 0]]]);
    this.over.draw(targets.colour, this.values, values, textures);
  }
}
