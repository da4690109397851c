import type { SurfaceVariant } from '../compile/surface-programs';
import { writeMaterialValues, type FrameGlobals } from '../compile/material-values';
import type { LiveValues } from '../compile/slots';
import type { MaterialSource } from '../document/material';
import type { Device } from '../device/device';
import type { EmittedMaterial } from '../emit/emitted-material';
import type { TargetCode } from '../emit/target';
import { vertexLayouts } from './mesh-buffers';
import { OwnValues } from './own-values';
import { SHADOW_BIAS, ProgramPipelines, type PipelineWays } from './program-pipelines';

/** A compiled material on the device: its pipelines, and its numbers. */
export class MaterialPipelines {
  /** The numbers of what wears it without a block for them. */
  readonly values: OwnValues;

  private constructor(
    private readonly device: Device,
    private source: EmittedMaterial,
    private readonly plain: ProgramPipelines,
    private readonly variants: Map<SurfaceVariant, ProgramPipelines>,
  ) {
    this.values = this.createValues();
  }

  /** The structure's key. */
  get key(): string {
    return this.source.key;
  }

  /** @throws ProgramRefused */
  static async create(device: Device, compiled: EmittedMaterial): Promise<MaterialPipelines> {
    const plain = await pipelinesOf(device, compiled, 'surface', compiled.program);
    const surface = new MaterialPipelines(device, compiled, plain, new Map());
    await surface.learn(compiled);
    return surface;
  }

  /** Whether there are programs that it does not have yet: for shadows, or to be taken apart. */
  lacks({ variants }: Pick<EmittedMaterial, 'variants'>): boolean {
    return Object.keys(variants).some((variant) => !this.variants.has(variant as SurfaceVariant));
  }

  /**
   * Takes programs over that it does not have yet.
   *
   * @throws ProgramRefused
   */
  async learn(compiled: Pick<EmittedMaterial, 'key' | 'variants' | 'shaped' | 'welded' | 'opacity'>): Promise<void> {
    const fresh = (Object.entries(compiled.variants) as [SurfaceVariant, TargetCode][]).filter(([variant]) => !this.variants.has(variant));
    for (const [variant, code] of fresh) this.variants.set(variant, await pipelinesOf(this.device, compiled, variant, code));
  }

  /** Samplers of the program, each with the material's image it shows. */
  get images(): EmittedMaterial['images'] {
    return this.source.images;
  }

  get compiled(): EmittedMaterial {
    return this.source;
  }

  has(variant: SurfaceVariant): boolean {
    return this.variants.has(variant);
  }

  /** The program of a variant where that can be had, or the next best. */
  pipelines(variant?: SurfaceVariant): ProgramPipelines {
    const own = variant && (this.variants.get(variant) ?? this.variants.get(NEXT_BEST[variant] ?? variant));
    return own ?? this.plain;
  }

  /** A block for the numbers of one more part that wears this surface; the caller destroys it. */
  createValues(): OwnValues {
    const words = this.source.blocks.find((block) => block.name === 'Material')?.words ?? 4;
    return new OwnValues(this.device, words);
  }

  /** Brings the numbers in a block up to date. */
  write(values: OwnValues, material: MaterialSource, frame: FrameGlobals, live?: LiveValues): void {
    writeMaterialValues(this.source, material, frame, values.words, live);
    values.upload();
  }

  /** Another material of the same structure takes over the program: only where its numbers come from differs. */
  adopt(compiled: EmittedMaterial): void {
    if (compiled.key !== this.source.key) throw new RangeError('a surface can only adopt a material of the same structure');
    this.source = compiled;
  }

  destroy(): void {
    this.values.destroy();
    this.plain.destroy();
    for (const each of this.variants.values()) each.destroy();
  }
}

function pipelinesOf(
  device: Device,
  { key, shaped, welded, opacity }: Pick<EmittedMaterial, 'key' | 'shaped' | 'welded' | 'opacity'>,
  label: SurfaceVariant | 'surface',
  code: TargetCode,
): Promise<ProgramPipelines> {
  const blend = PICTURES.has(label) && opacity !== 'cut' ? BLENDS[opacity ?? 'none'] : undefined;
  return ProgramPipelines.create(device, `${label} ${key}`, code, {
    vertexBuffers: vertexLayouts({ shaped, welded, grown: label === 'hull' }),
    blend,
    ...WAYS[label],
  });
}

/** How programs that draw no picture are drawn. */
const WAYS: Partial<Record<SurfaceVariant | 'surface', PipelineWays>> = {
  caster: { depthBias: SHADOW_BIAS },
  cover: { blend: 'gather' },
  wires: { topology: 'lines' },
};

/** Where nothing is occluded the two draw the same. */
const NEXT_BEST: Partial<Record<SurfaceVariant, SurfaceVariant>> = { occluded: 'shadowed', shadowed: 'occluded' };

/** Programs that draw what is seen. */
const PICTURES: ReadonlySet<string> = new Set<SurfaceVariant | 'surface'>(['surface', 'shadowed', 'occluded', 'inspect']);
const BLENDS = { none: undefined, blend: 'over', unsorted: 'add', add: 'add' } as const;
