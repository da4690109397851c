import type { Device, DevicePipeline, PipelineDescriptor } from '../device/device';
import type { TargetCode } from '../emit/target';
import { SURFACE_VERTEX_BUFFERS } from './mesh-buffers';

export type SampleCount = 1 | 4;

/** What differs between the drawings of one program. */
export interface PipelineState {
  readonly samples: SampleCount;
  /** Sides that are not drawn. */
  readonly cull: PipelineDescriptor['cull'];
  /** The mesh is mirrored: its triangles go round the other way. */
  readonly mirrored: boolean;
}

/** What is the same for all drawings of a program. */
export type PipelineWays = Pick<PipelineDescriptor, 'depthBias' | 'topology' | 'blend'> & Partial<Pick<PipelineDescriptor, 'depth'>>;

/** Keeps lit surfaces from shadowing themselves. */
export const SHADOW_BIAS: PipelineDescriptor['depthBias'] = { slope: 1.5, steps: 2 };

/** The pipelines of one program, in all states it may be drawn in; they share the compiled program. */
export class SurfacePipelines {
  private constructor(private readonly pipelines: ReadonlyMap<string, DevicePipeline>) {}

  /** @throws ProgramRefused */
  static async create(
    device: Device,
    label: string,
    code: TargetCode,
    { vertexBuffers = SURFACE_VERTEX_BUFFERS, ...ways }: PipelineWays & Partial<Pick<PipelineDescriptor, 'vertexBuffers'>> = {},
  ): Promise<SurfacePipelines> {
    const pipelines = new Map<string, DevicePipeline>();
    for (const state of STATES) {
      const pipeline = await device.createPipeline({
        ...ways,
        label,
        code,
        vertexBuffers,
        depth: ways.depth ?? (ways.blend ? 'test' : 'test and write'),
        cull: state.cull,
        front: state.mirrored ? 'cw' : 'ccw',
        samples: state.samples,
      });
      pipelines.set(key(state), pipeline);
    }
    return new SurfacePipelines(pipelines);
  }

  get(state: PipelineState): DevicePipeline {
    const found = this.pipelines.get(key(state));
    if (!found) throw new RangeError(`no pipeline for ${key(state)}`);
    return found;
  }

  destroy(): void {
    for (const pipeline of this.pipelines.values()) pipeline.destroy();
  }
}

const STATES: readonly PipelineState[] = ([1, 4] as const).flatMap((samples) =>
  (['none', 'back', 'front'] as const).flatMap((cull) => [false, true].map((mirrored) => ({ samples, cull, mirrored }))),
);

function key({ samples, cull, mirrored }: PipelineState): string {
  return `${samples} ${cull} ${mirrored}`;
}
