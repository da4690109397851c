import type {
  BoundResources,
  BufferDescriptor,
  Device,
  DeviceBindGroup,
  DeviceBuffer,
  DevicePipeline,
  DeviceProgram,
  DeviceTexture,
  PassDescriptor,
  PassTimes,
  PipelineDescriptor,
  ProgramDescriptor,
  TextureDescriptor,
} from '../device/device';
import { groupFault, passFault, PassRefused } from '../device/pass-faults';
import type { GroupLayout } from '../emit/bindings';
import { GLSL_TARGET } from '../emit/glsl/target';

/** A pass, with what its drawings found in the blocks that they read. */
export interface RecordedPass extends PassDescriptor {
  /** Of each drawing, by block. */
  readonly found: readonly ReadonlyMap<string, Float32Array>[];
}

/** Notes what is asked of it; draws nothing. Refuses what the contract of `Device` forbids. */
export class RecordingDevice implements Device {
  readonly target = GLSL_TARGET;
  readonly statistics = { compiledPrograms: 0, passes: 0 };
  readonly passes: RecordedPass[] = [];
  readonly textures: TextureDescriptor[] = [];
  readonly pipelines: PipelineDescriptor[] = [];
  /** Labels of programs, in the order in which they were made. */
  readonly programs: string[] = [];
  programsGone = 0;
  writes = 0;
  alive = 0;
  groups = 0;
  private readonly contents = new Map<DeviceBuffer, Float32Array>();

  createBuffer({ size }: BufferDescriptor): DeviceBuffer {
    this.alive++;
    const buffer: DeviceBuffer = {
      size,
      write: (data) => {
        this.writes++;
        this.contents.set(buffer, Float32Array.from(data));
      },
      destroy: () => void this.alive--,
    };
    return buffer;
  }
  createTexture(descriptor: TextureDescriptor): DeviceTexture {
    this.textures.push(descriptor);
    this.alive++;
    return { ...descriptor, write: () => void this.writes++, destroy: () => void this.alive-- };
  }
  async createProgram(descriptor: ProgramDescriptor): Promise<DeviceProgram> {
    return this.createOwnProgram(descriptor);
  }
  createOwnProgram({ label, code: { layout }, vertexBuffers }: ProgramDescriptor): DeviceProgram {
    this.programs.push(label);
    return { label, layout, vertexBuffers, destroy: () => void this.programsGone++ };
  }
  createPipeline(descriptor: PipelineDescriptor): DevicePipeline {
    this.pipelines.push(descriptor);
    return { descriptor };
  }
  createBindGroup(layout: GroupLayout, resources: BoundResources): DeviceBindGroup {
    const fault = groupFault(layout, resources);
    if (fault) throw new RangeError(fault);
    this.groups++;
    return { layout, ...resources };
  }
  runPass(pass: PassDescriptor): void {
    const fault = passFault(pass);
    if (fault) throw new PassRefused(fault);
    const found = pass.draws.map(({ bindings }) => new Map(bindings.flatMap((group) => (group ? this.read(group) : []))));
    this.passes.push({ ...pass, found });
  }
  resolve(): void {
    this.statistics.passes++;
  }
  fillMips(): void {
    this.statistics.passes++;
  }
  async readPixels(): Promise<Uint8Array<ArrayBuffer>> {
    return new Uint8Array(4);
  }
  async readFloats(): Promise<Float32Array<ArrayBuffer>> {
    return new Float32Array(4);
  }
  async makeReady(draw: () => void): Promise<void> {
    draw();
  }
  async timePasses(draw: () => void): Promise<PassTimes> {
    draw();
    return { by: 'difference', passes: [] };
  }
  async finished(): Promise<void> {}
  destroy(): void {}

  private read({ layout, blocks }: DeviceBindGroup): [string, Float32Array][] {
    return layout.blocks.flatMap((name, index): [string, Float32Array][] => {
      const words = blocks[index] && this.contents.get(blocks[index]);
      return words ? [[name, words]] : [];
    });
  }
}
