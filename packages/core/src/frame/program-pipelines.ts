import type { Device, DevicePipeline, DeviceProgram, PassFormats, PipelineDescriptor, ProgramDescriptor } from '../device/device';
import type { ProgramLayout } from '../emit/bindings';
import { codeFor, type TargetCode } from '../emit/target';
import type { Module } from '../ir/ir';
import { recordedProgram } from '../compile/recorded-program';
import { SURFACE_VERTEX_BUFFERS } from './mesh-buffers';
import { ownProgram } from './own-program';

export type SampleCount = 1 | 4;

/** What differs between the drawings of one program. */
export interface PipelineState {
  readonly into: PassFormats;
  /** Sides that are not drawn. */
  readonly cull: PipelineDescriptor['cull'];
  /** The mesh is mirrored: its triangles go round the other way. */
  readonly mirrored: boolean;
}

/** What is the same for all drawings of a program. */
export type PipelineWays = Pick<PipelineDescriptor, 'depthBias' | 'topology' | 'blend'> & Partial<Pick<PipelineDescriptor, 'depth'>>;

/** Keeps lit surfaces from shadowing themselves. */
export const SHADOW_BIAS: PipelineDescriptor['depthBias'] = { slope: 1.5, steps: 2 };

/** The pipelines of one program, in the states it is drawn in; each is made when it is first drawn. */
export class ProgramPipelines {
  private readonly pipelines = new Map<string, DevicePipeline>();
  private made?: DeviceProgram;
  private madeOnFields?: ProgramPipelines;

  private constructor(
    private readonly device: Device,
    private readonly make: () => DeviceProgram,
    private readonly ways: PipelineWays,
    private readonly makeOnFields?: () => ProgramPipelines,
  ) {}

  /** @throws ProgramRefused */
  static async create(
    device: Device,
    label: string,
    code: TargetCode,
    { vertexBuffers = SURFACE_VERTEX_BUFFERS, ...ways }: PipelineWays & Partial<Pick<ProgramDescriptor, 'vertexBuffers'>> = {},
  ): Promise<ProgramPipelines> {
    const program = await device.createProgram({ label, code, vertexBuffers });
    const pipelines = new ProgramPipelines(device, () => program, ways);
    pipelines.made = program;
    return pipelines;
  }

  /** Of a program of the frame's own for meshes: it is written and compiled when it is first drawn. */
  static own(device: Device, label: string, vertex: () => Module, fragment: () => Module, ways: PipelineWays = {}): ProgramPipelines {
    const own = (label: string, code: () => TargetCode): (() => DeviceProgram) => {
      return () => device.createOwnProgram({ label, code: code(), vertexBuffers: SURFACE_VERTEX_BUFFERS });
    };
    const recorded = own(`${label} on field`, () => codeFor(device.target, recordedProgram(fragment())));
    return new ProgramPipelines(
      device,
      own(label, () => ownProgram(device, vertex(), fragment())),
      ways,
      () => new ProgramPipelines(device, recorded, ways),
    );
  }

  private get program(): DeviceProgram {
    return (this.made ??= this.make());
  }

  /** The same program over parts of fields; itself where it is no program of the frame's own. */
  get onFields(): ProgramPipelines {
    return (this.madeOnFields ??= this.makeOnFields?.()) ?? this;
  }

  /** What the program reads. */
  get layout(): ProgramLayout {
    return this.program.layout;
  }

  get({ into, cull, mirrored }: PipelineState): DevicePipeline {
    const key = `${into.colour} ${into.depth} ${into.samples} ${cull} ${mirrored}`;
    const known = this.pipelines.get(key);
    if (known) return known;
    const { program, ways } = this;
    const made = this.device.createPipeline({
      ...ways,
      program,
      into,
      depth: ways.depth ?? (ways.blend ? 'test' : 'test and write'),
      cull,
      front: mirrored ? 'cw' : 'ccw',
    });
    this.pipelines.set(key, made);
    return made;
  }

  destroy(): void {
    this.made?.destroy();
    this.madeOnFields?.destroy();
  }
}
