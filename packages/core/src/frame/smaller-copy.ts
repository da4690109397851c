import type { Device, DeviceTexture } from '../device/device';
import type { FullScreen } from './full-screen';
import type { OwnValues } from './own-values';
import type { PictureSize } from './picture-part';

/** Reads what was drawn, small: each pixel is the mean of four by four round its middle. */
export class SmallerCopy {
  private readonly values: OwnValues;
  private target?: DeviceTexture;

  /** @param down the program `bloom_down` */
  constructor(
    private readonly device: Device,
    private readonly down: FullScreen,
  ) {
    this.values = down.createValues();
  }

  /** Four numbers a pixel, at most 64 each; rows from the top. @param factor on all but alpha, which is 1 */
  read(source: DeviceTexture, size: PictureSize, factor: number): Promise<Float32Array<ArrayBuffer>> {
    if (this.target?.width !== size.width || this.target.height !== size.height) {
      this.target?.destroy();
      this.target = this.device.createTexture({ ...size, format: 'rgba16float', samples: 1 });
    }
    const values = new Map([
      ['sourceStep', [1 / source.width, 1 / source.height, 0, factor]],
      ['targetExtent', [size.width, size.height, 0, 0]],
    ]);
    this.down.draw(this.target, this.values, values, { brighter: source });
    return this.device.readFloats(this.target);
  }
}
