import type { Device } from '../device/device';
import { GroupCache } from './group-cache';
import { UniformBuffer } from './uniform-buffer';

/** The block of a program's own numbers, and what was bound together with it. */
export class OwnValues extends UniformBuffer {
  readonly groups: GroupCache;

  constructor(device: Device, words: number) {
    super(device, words);
    this.groups = new GroupCache(device);
  }
}
