import type { Device, DeviceTexture, PassFormats, Sampling } from '../device/device';
import { mipLevelCount } from '../image/mips';
import type { PictureSize } from './picture-part';

/** How far what is drawn first is, with its normals. */
export interface DistanceTargets {
  readonly distance: DeviceTexture;
  readonly depth: DeviceTexture;
}

/** What was drawn before surfaces that look behind them: how far it is, and its colour. */
export interface BehindTargets extends DistanceTargets {
  /** With all its levels, which hold something only where a surface blurs it. */
  readonly colour: DeviceTexture;
}

/** What is laid over in no order, before it is put over the rest; see `gathered.frag`. */
export interface GatherTargets {
  readonly light: DeviceTexture;
  readonly cover: DeviceTexture;
  /** The same with one sample. */
  readonly resolvedLight: DeviceTexture;
  readonly resolvedCover: DeviceTexture;
}

/** Only fetched texel by texel; 32-bit floats cannot be smoothed everywhere. */
const FETCHED: Sampling = { wrapX: 'clamp', wrapY: 'clamp', filter: 'sharp' };

/** What the programs of surfaces draw into, in most passes. */
export const PICTURE_FORMATS: Readonly<Record<1 | 4, PassFormats>> = {
  1: { colour: 'rgba16float', depth: true, samples: 1 },
  4: { colour: 'rgba16float', depth: true, samples: 4 },
};
/** What `DistanceTargets` hold. */
export const DISTANCE_FORMATS: PassFormats = { colour: 'rgba32float', depth: true, samples: 1 };

/** The textures one size of picture is drawn into. */
export class RenderTargets {
  /** What passes draw into; has the samples. */
  readonly colour: DeviceTexture;
  readonly depth: DeviceTexture;
  /** Scene-linear colour, one sample; `colour` itself when that has only one. */
  readonly resolved: DeviceTexture;

  private secondDepth?: DeviceTexture;
  private seenFar?: DistanceTargets;
  private seenBehind?: BehindTargets;
  private gatherTargets?: GatherTargets;
  private seenPicture?: DeviceTexture;

  constructor(
    private readonly device: Device,
    readonly size: PictureSize,
    readonly samples: 1 | 4,
  ) {
    this.colour = device.createTexture({ ...size, format: 'rgba16float', samples });
    this.depth = device.createTexture({ ...size, format: 'depth24plus', samples });
    this.resolved = samples === 1 ? this.colour : device.createTexture({ ...size, format: 'rgba16float', samples: 1 });
  }

  /** Of `colour` and `depth`. */
  get formats(): PassFormats {
    return PICTURE_FORMATS[this.samples];
  }

  /** Depth that knows only what a pass of its own drew; made when it is first wanted. */
  get ownDepth(): DeviceTexture {
    return (this.secondDepth ??= this.device.createTexture({ ...this.size, format: 'depth24plus', samples: this.samples }));
  }

  /** For surfaces that look at what is behind them, and for what is near; made when they are first wanted. */
  get far(): DistanceTargets {
    const texture = (format: DeviceTexture['format']): DeviceTexture =>
      this.device.createTexture({ ...this.size, format, samples: 1, sampling: FETCHED });
    return (this.seenFar ??= { distance: texture('rgba32float'), depth: texture('depth24plus') });
  }

  /** For surfaces that look at what is behind them; made when they are first wanted. */
  get behind(): BehindTargets {
    const mipLevels = mipLevelCount(this.size.width, this.size.height);
    return (this.seenBehind ??= {
      ...this.far,
      colour: this.device.createTexture({ ...this.size, format: 'rgba16float', samples: 1, mipLevels }),
    });
  }

  /** The picture as it is seen, before its bright edges are smoothed; made when it is first wanted. */
  get seen(): DeviceTexture {
    return (this.seenPicture ??= this.device.createTexture({ ...this.size, format: 'rgba8unorm', samples: 1 }));
  }

  /** For what is laid over in no order; made when it is first wanted. */
  get gathered(): GatherTargets {
    if (this.gatherTargets) return this.gatherTargets;
    const texture = (samples: 1 | 4): DeviceTexture => this.device.createTexture({ ...this.size, format: 'rgba16float', samples });
    const [light, cover] = [texture(this.samples), texture(this.samples)];
    const single = this.samples === 1;
    this.gatherTargets = { light, cover, resolvedLight: single ? light : texture(1), resolvedCover: single ? cover : texture(1) };
    return this.gatherTargets;
  }

  /** Whether these textures are its own. */
  has(behind: BehindTargets | undefined): boolean {
    return behind !== undefined && behind === this.seenBehind;
  }

  resolve(): void {
    if (this.resolved !== this.colour) this.device.resolve(this.colour, this.resolved);
  }

  destroy(): void {
    this.colour.destroy();
    this.depth.destroy();
    this.secondDepth?.destroy();
    this.seenPicture?.destroy();
    for (const each of [this.seenFar?.distance, this.seenFar?.depth, this.seenBehind?.colour]) each?.destroy();
    const { light, cover, resolvedLight, resolvedCover } = this.gatherTargets ?? {};
    for (const each of new Set([light, cover, resolvedLight, resolvedCover])) each?.destroy();
    if (this.resolved !== this.colour) this.resolved.destroy();
  }
}
