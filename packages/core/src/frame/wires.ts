import { libraryProgram } from '../catalogue/library';
import { plainVertexModule } from '../compile/surface-programs';
import type { Device, DeviceBuffer, DevicePipeline, DrawCall } from '../device/device';
import type { FrameItem } from './frame-item';
import { SURFACE_VERTEX_BUFFERS } from './mesh-buffers';
import { ownProgram } from './own-program';
import type { SampleCount } from './surface-pipelines';

/** The edges of meshes as lines. */
export class WireProgram {
  private constructor(private readonly pipelines: ReadonlyMap<SampleCount, DevicePipeline>) {}

  static async create(device: Device): Promise<WireProgram> {
    const code = ownProgram(device, plainVertexModule('wires.vert'), libraryProgram('wires.frag'));
    const pipelines = new Map<SampleCount, DevicePipeline>();
    for (const samples of [1, 4] as const) {
      const pipeline = await device.createPipeline({
        label: 'wires',
        code,
        vertexBuffers: SURFACE_VERTEX_BUFFERS,
        depth: 'test and write',
        cull: 'none',
        samples,
        topology: 'lines',
      });
      pipelines.set(samples, pipeline);
    }
    return new WireProgram(pipelines);
  }

  /**
   * @param frame the block `Frame`
   * @param shaped an item's drawing by a program of its own, for what has a shape of its own
   */
  drawCall(item: FrameItem, frame: DeviceBuffer, samples: SampleCount, shaped: (item: FrameItem, program: 'wires') => DrawCall): DrawCall {
    const { mesh, part } = item;
    const range = { indices: mesh.wires, first: (part?.first ?? 0) * 2, count: (part?.count ?? mesh.indexCount) * 2 };
    if (item.surface?.compiled.shaped) return { ...shaped(item, 'wires'), ...range };
    const pipeline = this.pipelines.get(samples);
    if (!pipeline) throw new RangeError(`no pipeline of ${samples} samples`);
    return {
      pipeline,
      bindings: [{ blocks: { Frame: frame, Object: (part?.object ?? mesh.object).buffer }, textures: {} }],
      vertexBuffers: mesh.of({ copies: part?.copies }),
      ...range,
      copies: part?.copyCount ?? 1,
    };
  }
}
