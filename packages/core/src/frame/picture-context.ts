import type { FrameGlobals } from '../compile/material-values';
import type { DeviceBindGroup, DeviceBuffer, DeviceTexture } from '../device/device';
import type { GroupLayout, ProgramLayout } from '../emit/bindings';
import type { ReadyEnvironment } from './environment/environment-passes';
import type { FrameItem } from './frame-item';
import type { GroupCache, NamedResources } from './group-cache';
import type { ImageBank } from './image-bank';
import type { OwnValues } from './own-values';
import type { BehindTargets } from './targets';

/** What pictures of one renderer have in common. */
export interface PictureResources {
  readonly groups: GroupCache;
  /** `Frame`, `Lights`, `Inspect`. */
  readonly blocks: ReadonlyMap<string, DeviceBuffer>;
  readonly images: ImageBank;
  readonly shadowAtlas: DeviceTexture;
  /** The table of albedos, worked out when it is first wanted. */
  readonly albedos: () => DeviceTexture;
  /** What is bound where a picture has nothing of a kind. */
  readonly nothing: { readonly near: DeviceTexture; readonly around: () => DeviceTexture; readonly behind: () => BehindTargets };
}

/** What surfaces of a picture see besides themselves. */
export interface Surroundings {
  /** What is all around. */
  readonly around?: ReadyEnvironment;
  /** How much of the light from all around near surfaces leave. */
  readonly near?: DeviceTexture;
  /** What was drawn before surfaces that look behind themselves. */
  readonly behind?: BehindTargets;
  /** The fields that stand there, traced. */
  readonly record?: DeviceTexture;
  /** The group that changes from pass to pass. */
  readonly pass?: DeviceBindGroup;
}

interface BoundMaterial extends NamedResources {
  readonly groups: Map<string, DeviceBindGroup>;
}

/**
 * What all drawings of a picture share. Numbers of a material are written once for each part, and resources are bound once
 * for each layout, however many passes draw the part.
 */
export class PictureContext implements NamedResources {
  private readonly groups = new Map<string, DeviceBindGroup>();

  constructor(
    private readonly shared: PictureResources,
    /** The numbers of `Frame` and `Lights`, as they were written. */
    readonly globals: FrameGlobals,
    private readonly seen: Surroundings = {},
    private readonly materials = new Map<OwnValues, BoundMaterial>(),
  ) {}

  /** The same picture, where other things are seen. */
  seeing(other: Surroundings): PictureContext {
    return new PictureContext(this.shared, this.globals, { ...this.seen, ...other }, this.materials);
  }

  /** The environment that is seen. */
  get around(): ReadyEnvironment | undefined {
    return this.seen.around;
  }

  block(name: string): DeviceBuffer | undefined {
    return this.shared.blocks.get(name);
  }

  texture(name: string): DeviceTexture | undefined {
    const { shadowAtlas, albedos, nothing } = this.shared;
    const { around, near, behind, record } = this.seen;
    switch (name) {
      case 'shadowAtlas':
        return shadowAtlas;
      case 'nearOcclusion':
        return near ?? nothing.near;
      case 'environmentCube':
        return around?.filtered ?? nothing.around();
      case 'splitSum':
        return albedos();
      case 'fieldRecord':
        return record ?? nothing.behind().distance;
      case 'sceneDistance':
        return (behind ?? nothing.behind()).distance;
      case 'sceneBehind':
      case 'sceneThrough':
        return (behind ?? nothing.behind()).colour;
      default:
        return undefined;
    }
  }

  /** What a program reads when it draws an item, group by group. */
  bindings([picture, own, part]: ProgramLayout, item: FrameItem): DrawBindings {
    return [
      picture && wanted(picture) ? this.pictureGroup(picture) : undefined,
      own && wanted(own) ? this.materialGroup(own, item) : undefined,
      part && wanted(part) ? (item.part?.object ?? item.mesh.object).group : undefined,
      this.seen.pass,
    ];
  }

  private pictureGroup(layout: GroupLayout): DeviceBindGroup {
    return once(this.groups, layout.key, () => this.shared.groups.find(layout, this));
  }

  private materialGroup(layout: GroupLayout, { surface, material, part }: FrameItem): DeviceBindGroup | undefined {
    const values = part?.values ?? surface?.values;
    if (!surface || !material || !values) return undefined;
    const bound = once(this.materials, values, (): BoundMaterial => {
      surface.write(values, material, this.globals, part?.live);
      const images = this.shared.images.texturesFor(surface.images, material.images);
      return { groups: new Map(), block: () => values.buffer, texture: (name) => images[name] };
    });
    return once(bound.groups, layout.key, () => values.groups.find(layout, bound));
  }
}

type DrawBindings = readonly (DeviceBindGroup | undefined)[];

function wanted({ key }: GroupLayout): boolean {
  return key !== '';
}

function once<K, V>(known: Map<K, V>, key: K, make: () => V): V {
  const found = known.get(key);
  if (found !== undefined) return found;
  const made = make();
  known.set(key, made);
  return made;
}
