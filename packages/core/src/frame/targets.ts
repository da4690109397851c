import type { Device, DeviceTexture } from '../device/device';
import type { PictureSize } from './uniforms';

/** The textures one size of picture is drawn into. */
export class RenderTargets {
  /** What passes draw into; has the samples. */
  readonly colour: DeviceTexture;
  readonly depth: DeviceTexture;
  /** Scene-linear colour, one sample; `colour` itself when that has only one. */
  readonly resolved: DeviceTexture;

  private secondDepth?: DeviceTexture;

  constructor(
    private readonly device: Device,
    readonly size: PictureSize,
    readonly samples: 1 | 4,
  ) {
    this.colour = device.createTexture({ ...size, format: 'rgba16float', samples });
    this.depth = device.createTexture({ ...size, format: 'depth24plus', samples });
    this.resolved = samples === 1 ? this.colour : device.createTexture({ ...size, format: 'rgba16float', samples: 1 });
  }

  /** Depth that knows only what a pass of its own drew; made when it is first wanted. */
  get ownDepth(): DeviceTexture {
    return (this.secondDepth ??= this.device.createTexture({ ...this.size, format: 'depth24plus', samples: this.samples }));
  }

  resolve(): void {
    if (this.resolved !== this.colour) this.device.resolve(this.colour, this.resolved);
  }

  destroy(): void {
    this.colour.destroy();
    this.depth.destroy();
    this.secondDepth?.destroy();
    if (this.resolved !== this.colour) this.resolved.destroy();
  }
}
