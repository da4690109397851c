import type { NearOcclusion } from '@brelvin/contract';
import type { Device, DeviceTexture } from '../device/device';
import type { OrbitCamera } from '../scene/camera';
import { FullScreen } from './full-screen';
import type { OwnValues } from './own-values';
import type { PictureSize } from './picture-part';

interface NearTargets {
  readonly size: PictureSize;
  /** Found, and half smoothed; smoothed both ways ends in the first. */
  readonly pair: readonly [DeviceTexture, DeviceTexture];
}

/** How much of the light from all around reaches what is seen, found before it is drawn, at half its size. */
export class NearOcclusionPasses {
  private targets?: NearTargets;
  private readonly values: readonly [OwnValues, OwnValues, OwnValues];
  /** Says that nothing is occluded. */
  readonly nothing: DeviceTexture;

  private readonly find: FullScreen;
  private readonly smooth: FullScreen;

  constructor(private readonly device: Device) {
    const find = (this.find = new FullScreen(device, 'near_occlusion', 'NearOcclusion', 'occlusion'));
    const smooth = (this.smooth = new FullScreen(device, 'near_smooth', 'NearSmooth', 'occlusion'));
    this.values = [find.createValues(), smooth.createValues(), smooth.createValues()];
    this.nothing = device.createTexture({ width: 1, height: 1, format: 'rgba16float', samples: 1 });
    device.runPass({ label: 'occlusion', colour: this.nothing, clear: [1, 0, 0, 1], draws: [] });
  }

  /** @param scene depth in x and normal in view space of what is seen, as `scene_distance` gives them */
  draw(scene: DeviceTexture, { radius, strength }: NearOcclusion, camera: OrbitCamera, picture: PictureSize): DeviceTexture {
    const { size, pair } = this.targetsFor(picture);
    const [found, half] = pair;
    const high = Math.tan(camera.fieldOfView / 2) * (camera.orthographic ? camera.distance : 1);
    const values = new Map([
      ['nearSpan', [(high * picture.width) / picture.height, high, camera.orthographic ? 0 : 1, radius]],
      ['nearTarget', [size.width, size.height, strength, size.height / (2 * high)]],
    ]);
    this.find.draw(found, this.values[0], values, { nearScene: scene });
    const along = (buffer: OwnValues, from: DeviceTexture, to: DeviceTexture, way: readonly number[]): void =>
      this.smooth.draw(to, buffer, new Map([['nearWay', way]]), { nearFound: from });
    along(this.values[1], found, half, [1, 0, 0, 0]);
    along(this.values[2], half, found, [0, 1, 0, 0]);
    return found;
  }

  private targetsFor({ width, height }: PictureSize): NearTargets {
    const size = { width: Math.max(1, Math.ceil(width / 2)), height: Math.max(1, Math.ceil(height / 2)) };
    const { targets } = this;
    if (targets?.size.width === size.width && targets.size.height === size.height) return targets;
    for (const each of targets?.pair ?? []) each.destroy();
    const texture = (): DeviceTexture => this.device.createTexture({ ...size, format: 'rgba16float', samples: 1 });
    return (this.targets = { size, pair: [texture(), texture()] });
  }
}
