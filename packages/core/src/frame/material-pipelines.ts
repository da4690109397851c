import type { ProgramVariant } from '../compile/surface-programs';
import type { LitProgram } from '../scene/lights';
import { writeMaterialValues, type FrameGlobals } from '../compile/material-values';
import type { LiveValues } from '../compile/slots';
import type { MaterialSource } from '../document/material';
import type { Device } from '../device/device';
import type { EmittedMaterial } from '../emit/emitted-material';
import type { TargetCode } from '../emit/target';
import { vertexLayouts } from './mesh-buffers';
import { OwnValues } from './own-values';
import { SHADOW_BIAS, ProgramPipelines, type PipelineWays } from './program-pipelines';

type ProgramName = LitProgram | ProgramVariant;

/** Where what is wanted is not here, these stand in for it, the first that is. */
const LIT: readonly LitProgram[] = ['shadowed', 'occluded', 'plain'];

/** A compiled material on the device: its pipelines, and its numbers. */
export class MaterialPipelines {
  /** The numbers of what wears it without a block for them. */
  readonly values: OwnValues;
  private readonly programs = new Map<ProgramName, ProgramPipelines>();
  /** Programs on their way to the device. */
  private readonly coming = new Map<ProgramName, Promise<void>>();
  private gone = false;

  private constructor(
    private readonly device: Device,
    private source: EmittedMaterial,
  ) {
    this.values = this.createValues();
  }

  /** The structure's key. */
  get key(): string {
    return this.source.key;
  }

  /**
   * @param lit of the programs that draw it as its light has it, those that pictures need; all that there are when absent
   * @throws ProgramRefused
   */
  static async create(device: Device, compiled: EmittedMaterial, lit?: Iterable<LitProgram>): Promise<MaterialPipelines> {
    const surface = new MaterialPipelines(device, compiled);
    try {
      await surface.learn(compiled, lit);
    } catch (error) {
      surface.destroy();
      throw error;
    }
    return surface;
  }

  /** Whether there are programs that pictures need and it does not have yet: for shadows, or to be taken apart. */
  lacks(compiled: EmittedMaterial, lit?: Iterable<LitProgram>): boolean {
    return neededOf(compiled, lit).some(([name]) => !this.programs.has(name));
  }

  /**
   * Takes programs over that it does not have yet, all at once.
   *
   * @throws ProgramRefused
   */
  async learn(compiled: EmittedMaterial, lit?: Iterable<LitProgram>): Promise<void> {
    const bring = async (name: ProgramName, code: TargetCode): Promise<void> => {
      try {
        const made = await pipelinesOf(this.device, compiled, name, code);
        if (this.gone) made.destroy();
        else this.programs.set(name, made);
      } finally {
        this.coming.delete(name);
      }
    };
    const fresh = neededOf(compiled, lit).filter(([name]) => !this.programs.has(name));
    for (const [name, code] of fresh) if (!this.coming.has(name)) this.coming.set(name, bring(name, code));
    await Promise.all(fresh.flatMap(([name]) => this.coming.get(name) ?? []));
  }

  /** Samplers of the program, each with the material's image it shows. */
  get images(): EmittedMaterial['images'] {
    return this.source.images;
  }

  get compiled(): EmittedMaterial {
    return this.source;
  }

  has(variant: ProgramVariant): boolean {
    return this.programs.has(variant);
  }

  /** The program of a variant where that can be had, or one that stands in for it. */
  pipelines(variant: ProgramName = 'plain'): ProgramPipelines {
    for (const name of [variant, ...LIT]) {
      const found = this.programs.get(name);
      if (found) return found;
    }
    throw new ReferenceError('a surface has at least one program that draws it lit');
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
    this.gone = true;
    this.values.destroy();
    for (const each of this.programs.values()) each.destroy();
  }
}

/** What of a compiled material is needed; of the programs that draw it lit at least one. */
function neededOf({ program, variants }: EmittedMaterial, lit: Iterable<LitProgram> = LIT): (readonly [ProgramName, TargetCode])[] {
  const wanted = new Set<ProgramName>(lit);
  const all = Object.entries({ plain: program, ...variants }) as [ProgramName, TargetCode][];
  const found = all.filter(([name]) => !isLit(name) || wanted.has(name));
  return found.some(([name]) => isLit(name)) ? found : [['plain', program], ...found];
}

function isLit(name: ProgramName): name is LitProgram {
  return (LIT as readonly ProgramName[]).includes(name);
}

function pipelinesOf(
  device: Device,
  { key, shaped, welded, opacity }: EmittedMaterial,
  label: ProgramName,
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
const WAYS: Partial<Record<ProgramName, PipelineWays>> = {
  caster: { depthBias: SHADOW_BIAS },
  cover: { blend: 'gather' },
  wires: { topology: 'lines' },
};

/** Programs that draw what is seen. */
const PICTURES: ReadonlySet<string> = new Set<ProgramName>([...LIT, 'inspect']);
const BLENDS = { none: undefined, blend: 'over', unsorted: 'add', add: 'add' } as const;
