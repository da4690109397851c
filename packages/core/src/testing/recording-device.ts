import type {
  BufferDescriptor,
  Device,
  DeviceBuffer,
  DevicePipeline,
  DeviceTexture,
  PassDescriptor,
  PipelineDescriptor,
  TextureDescriptor,
} from '../device/device';
import { GLSL_TARGET } from '../emit/glsl/target';

/** Notes what is asked of it; draws nothing. */
export class RecordingDevice implements Device {
  readonly target = GLSL_TARGET;
  readonly statistics = { compiledPrograms: 0, passes: 0 };
  readonly passes: PassDescriptor[] = [];
  readonly textures: TextureDescriptor[] = [];
  writes = 0;
  alive = 0;

  createBuffer(descriptor: BufferDescriptor): DeviceBuffer {
    this.alive++;
    return { size: descriptor.size, write: () => void this.writes++, destroy: () => void this.alive-- };
  }
  createTexture(descriptor: TextureDescriptor): DeviceTexture {
    this.textures.push(descriptor);
    this.alive++;
    return { ...descriptor, write: () => void this.writes++, destroy: () => void this.alive-- };
  }
  async createPipeline(descriptor: PipelineDescriptor): Promise<DevicePipeline> {
    return { descriptor, destroy: () => undefined };
  }
  runPass(pass: PassDescriptor): void {
    this.passes.push(pass);
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
  async finished(): Promise<void> {}
  destroy(): void {}
}
