import { libraryProgram } from '../catalogue/library';
import type { FrameGlobals } from '../compile/material-values';
import type { Device, DevicePipeline, DeviceTexture, DrawCall } from '../device/device';
import { blockLayout, type BlockLayout } from '../ir/layout';
import { ownProgram } from './own-program';
import type { SampleCount } from './surface-pipelines';
import { UniformBuffer } from './uniform-buffer';
import { writeBlock } from './uniforms';

/** One program of the library, drawn over a whole target; its own uniform block is named in the program. */
export class FullScreen {
  private constructor(
    private readonly pipelines: ReadonlyMap<SampleCount, DevicePipeline>,
    private readonly layout: BlockLayout,
    private readonly device: Device,
  ) {}

  static async create(
    device: Device,
    program: string,
    block: string,
    samples: readonly SampleCount[] = [1],
    blend?: 'over' | 'under' | 'gather',
  ): Promise<FullScreen> {
    const fragment = libraryProgram(`${program}.frag`);
    const declared = fragment.blocks.get(block);
    if (!declared) throw new RangeError(`${program} has no block ${block}`);
    const code = ownProgram(device, libraryProgram('full_screen.vert'), fragment);
    const pipelines = new Map<SampleCount, DevicePipeline>();
    for (const count of samples) {
      pipelines.set(
        count,
        await device.createPipeline({ label: program, code, vertexBuffers: [], depth: 'none', cull: 'none', samples: count, blend }),
      );
    }
    return new FullScreen(pipelines, blockLayout(declared), device);
  }

  /** Numbers for one place where the program is drawn; two places of one picture need two. */
  createValues(): UniformBuffer {
    return new UniformBuffer(this.device, this.layout.words);
  }

  /** The drawing, to stand in a pass. */
  drawCall(
    buffer: UniformBuffer,
    values: FrameGlobals,
    textures: Readonly<Record<string, DeviceTexture>> = {},
    samples: SampleCount = 1,
  ): DrawCall {
    const pipeline = this.pipelines.get(samples);
    if (!pipeline) throw new RangeError(`no pipeline of ${samples} samples`);
    writeBlock(this.layout, values, buffer.words);
    buffer.upload();
    return {
      pipeline,
      bindings: [{ blocks: { [this.layout.name]: buffer.buffer }, textures }],
      vertexBuffers: [],
      first: 0,
      count: 3,
      copies: 1,
    };
  }
}
