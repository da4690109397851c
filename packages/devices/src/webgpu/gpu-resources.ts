import type { BufferDescriptor, DeviceBuffer, DeviceTexture, RowPlace, Sampling, TextureDescriptor, TextureFormat } from '@brelvin/core';

/** What happens to what is already asked for before something is written: it is handed to the device. */
export type BeforeWriting = () => void;

export class GpuBuffer implements DeviceBuffer {
  readonly size: number;
  readonly handle: GPUBuffer;

  constructor(
    private readonly gpu: GPUDevice,
    descriptor: BufferDescriptor,
    private readonly before: BeforeWriting,
  ) {
    this.size = descriptor.size;
    const usage = { vertex: GPUBufferUsage.VERTEX, index: GPUBufferUsage.INDEX, uniform: GPUBufferUsage.UNIFORM }[descriptor.usage];
    this.handle = gpu.createBuffer({ size: Math.max(16, Math.ceil(descriptor.size / 16) * 16), usage: usage | GPUBufferUsage.COPY_DST });
  }

  write(data: Float32Array<ArrayBuffer> | Uint32Array<ArrayBuffer>): void {
    this.before();
    this.gpu.queue.writeBuffer(this.handle, 0, data);
  }

  destroy(): void {
    this.before();
    this.handle.destroy();
  }
}

const SMOOTH: Sampling = { wrapX: 'clamp', wrapY: 'clamp', filter: 'smooth' };
const WRAPS = { repeat: 'repeat', mirror: 'mirror-repeat', clamp: 'clamp-to-edge' } as const;
const FACES = 6;

/** Bytes of a pixel. */
export const PIXEL_BYTES: Readonly<Record<TextureFormat, number>> = {
  rgba16float: 8,
  rgba32float: 16,
  rgba8unorm: 4,
  'rgba8unorm-srgb': 4,
  depth24plus: 4,
};

export class GpuTexture implements DeviceTexture {
  readonly width: number;
  readonly height: number;
  readonly format: TextureFormat;
  readonly samples: 1 | 4;
  readonly mipLevels: number;
  readonly cube: boolean;
  readonly handle: GPUTexture;
  /** All of it, as programs read it. */
  readonly read: GPUTextureView;
  /** How programs read it. */
  readonly sampling: Sampling;
  private readonly parts = new Map<string, GPUTextureView>();

  constructor(
    private readonly gpu: GPUDevice,
    { width, height, format, samples, mipLevels = 1, sampling = SMOOTH, cube = false }: TextureDescriptor,
    private readonly before: BeforeWriting,
  ) {
    this.width = width;
    this.height = height;
    this.format = format;
    this.samples = samples;
    this.mipLevels = mipLevels;
    this.cube = cube;
    this.sampling = sampling;
    const { RENDER_ATTACHMENT, TEXTURE_BINDING, COPY_SRC, COPY_DST } = GPUTextureUsage;
    const copied = samples === 1 && format !== 'depth24plus' ? COPY_SRC | COPY_DST : 0;
    this.handle = gpu.createTexture({
      size: [width, height, cube ? FACES : 1],
      format,
      sampleCount: samples,
      mipLevelCount: mipLevels,
      usage: RENDER_ATTACHMENT | TEXTURE_BINDING | copied,
    });
    this.read = this.handle.createView(cube ? { dimension: 'cube' } : {});
  }

  /** A level of it, of a cube one face of that, to be drawn into or read alone. */
  part(level = 0, face = 0): GPUTextureView {
    const key = `${level} ${face}`;
    const known = this.parts.get(key);
    if (known) return known;
    const made = this.handle.createView({
      dimension: '2d',
      baseMipLevel: level,
      mipLevelCount: 1,
      baseArrayLayer: face,
      arrayLayerCount: 1,
    });
    this.parts.set(key, made);
    return made;
  }

  write(level: number, pixels: Uint8Array<ArrayBuffer> | Uint16Array<ArrayBuffer>, { face = 0, firstRow = 0 }: RowPlace = {}): void {
    this.before();
    const width = Math.max(1, this.width >> level);
    this.gpu.queue.writeTexture(
      { texture: this.handle, mipLevel: level, origin: [0, firstRow, face] },
      pixels,
      { bytesPerRow: width * PIXEL_BYTES[this.format] },
      [width, pixels.length / 4 / width],
    );
  }

  destroy(): void {
    this.before();
    this.handle.destroy();
  }
}

/** Samplers by how they read; there are few. */
export class Samplers {
  private readonly made = new Map<string, GPUSampler>();

  constructor(private readonly gpu: GPUDevice) {}

  of({ wrapX, wrapY, filter }: Sampling): GPUSampler {
    const key = `${wrapX} ${wrapY} ${filter}`;
    const known = this.made.get(key);
    if (known) return known;
    const between = filter === 'smooth' ? 'linear' : 'nearest';
    const sampler = this.gpu.createSampler({
      addressModeU: WRAPS[wrapX],
      addressModeV: WRAPS[wrapY],
      magFilter: between,
      minFilter: between,
      mipmapFilter: 'linear',
    });
    this.made.set(key, sampler);
    return sampler;
  }
}
