import type { Device, DeviceBindGroup, DeviceBuffer, DeviceTexture } from '../device/device';
import type { GroupLayout } from '../emit/bindings';

/** Resources by the names that programs give them. */
export interface NamedResources {
  block(name: string): DeviceBuffer | undefined;
  texture(name: string): DeviceTexture | undefined;
}

/** With and without what is near, or behind. */
const MOST_OF_A_LAYOUT = 4;

/** Bind groups of resources that go together: one for each layout in which programs want them, made anew only where one of them is another. */
export class GroupCache {
  private readonly groups = new Map<string, DeviceBindGroup[]>();

  constructor(private readonly device: Device) {}

  find(layout: GroupLayout, named: NamedResources): DeviceBindGroup {
    const blocks = layout.blocks.map((name) => given(named.block(name), name));
    const textures = layout.textures.map(({ name }) => given(named.texture(name), name));
    const same = (group: DeviceBindGroup): boolean =>
      blocks.every((each, index) => each === group.blocks[index]) && textures.every((each, index) => each === group.textures[index]);
    const known = this.groups.get(layout.key) ?? [];
    const found = known.find(same);
    if (found) return found;
    const made = this.device.createBindGroup(layout, { blocks, textures });
    this.groups.set(layout.key, [made, ...known].slice(0, MOST_OF_A_LAYOUT));
    return made;
  }
}

function given<T>(resource: T | undefined, name: string): T {
  if (resource === undefined) throw new RangeError(`nothing is bound to ${name}`);
  return resource;
}
