import type { Device, DeviceBindGroup } from '../device/device';
import { groupLayout } from '../emit/bindings';
import type { BlockLayout } from '../ir/layout';
import { UniformBuffer } from './uniform-buffer';

/** A uniform block that is a group by itself. */
export class BoundBlock extends UniformBuffer {
  readonly group: DeviceBindGroup;

  constructor(
    device: Device,
    readonly layout: BlockLayout,
  ) {
    super(device, layout.words);
    this.group = device.createBindGroup(groupLayout([layout.name]), { blocks: [this.buffer], textures: [] });
  }
}
