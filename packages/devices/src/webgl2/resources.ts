import type { BufferDescriptor, DeviceBuffer, DeviceTexture, RowPlace, Sampling, TextureDescriptor, TextureFormat } from '@brelvin/core';

export class GlBuffer implements DeviceBuffer {
  readonly size: number;
  readonly handle: WebGLBuffer;
  private readonly target: GLenum;

  constructor(
    private readonly gl: WebGL2RenderingContext,
    descriptor: BufferDescriptor,
  ) {
    this.size = descriptor.size;
    this.target = { vertex: gl.ARRAY_BUFFER, index: gl.ELEMENT_ARRAY_BUFFER, uniform: gl.UNIFORM_BUFFER }[descriptor.usage];
    this.handle = gl.createBuffer();
    // An index buffer must not be bound into whatever vertex array was used last.
    gl.bindVertexArray(null);
    gl.bindBuffer(this.target, this.handle);
    gl.bufferData(this.target, descriptor.size, descriptor.usage === 'uniform' ? gl.DYNAMIC_DRAW : gl.STATIC_DRAW);
  }

  write(data: Float32Array<ArrayBuffer> | Uint32Array<ArrayBuffer>): void {
    this.gl.bindVertexArray(null);
    this.gl.bindBuffer(this.target, this.handle);
    this.gl.bufferSubData(this.target, 0, data);
  }

  destroy(): void {
    this.gl.deleteBuffer(this.handle);
  }
}

const SMOOTH: Sampling = { wrapX: 'clamp', wrapY: 'clamp', filter: 'smooth' };

/** A texture that can be sampled, or a renderbuffer where it is only ever drawn into. */
export class GlTexture implements DeviceTexture {
  readonly width: number;
  readonly height: number;
  readonly format: TextureFormat;
  readonly samples: 1 | 4;
  readonly cube: boolean;
  readonly texture?: WebGLTexture;
  readonly renderbuffer?: WebGLRenderbuffer;

  constructor(
    private readonly gl: WebGL2RenderingContext,
    { width, height, format, samples, mipLevels = 1, sampling = SMOOTH, fetched = false, cube = false }: TextureDescriptor,
    private readonly onDestroy: (texture: GlTexture) => void,
  ) {
    this.width = width;
    this.height = height;
    this.format = format;
    this.samples = samples;
    this.cube = cube;
    const internal = {
      rgba16float: gl.RGBA16F,
      rgba32float: gl.RGBA32F,
      rgba8unorm: gl.RGBA8,
      'rgba8unorm-srgb': gl.SRGB8_ALPHA8,
      depth24plus: gl.DEPTH_COMPONENT24,
    }[format];
    if (samples > 1 || (format === 'depth24plus' && !fetched)) {
      this.renderbuffer = gl.createRenderbuffer();
      gl.bindRenderbuffer(gl.RENDERBUFFER, this.renderbuffer);
      gl.renderbufferStorageMultisample(gl.RENDERBUFFER, samples > 1 ? samples : 0, internal, width, height);
      return;
    }
    this.texture = gl.createTexture();
    const { target } = this;
    gl.bindTexture(target, this.texture);
    gl.texStorage2D(target, mipLevels, internal, width, height);
    const wraps = { repeat: gl.REPEAT, mirror: gl.MIRRORED_REPEAT, clamp: gl.CLAMP_TO_EDGE };
    // Depths are never blended.
    const smooth = sampling.filter === 'smooth' && format !== 'depth24plus';
    const between = smooth ? gl.LINEAR_MIPMAP_LINEAR : gl.NEAREST_MIPMAP_LINEAR;
    const plain = smooth ? gl.LINEAR : gl.NEAREST;
    gl.texParameteri(target, gl.TEXTURE_MIN_FILTER, mipLevels > 1 ? between : plain);
    gl.texParameteri(target, gl.TEXTURE_MAG_FILTER, plain);
    gl.texParameteri(target, gl.TEXTURE_WRAP_S, wraps[sampling.wrapX]);
    gl.texParameteri(target, gl.TEXTURE_WRAP_T, wraps[sampling.wrapY]);
  }

  get target(): GLenum {
    return this.cube ? this.gl.TEXTURE_CUBE_MAP : this.gl.TEXTURE_2D;
  }

  write(level: number, pixels: Uint8Array<ArrayBuffer> | Uint16Array<ArrayBuffer>, { face = 0, firstRow = 0 }: RowPlace = {}): void {
    const { gl, target } = this;
    if (!this.texture) throw new TypeError('only a texture that is read can be written');
    gl.bindTexture(target, this.texture);
    gl.pixelStorei(gl.UNPACK_ALIGNMENT, 1);
    const width = Math.max(1, this.width >> level);
    const rows = pixels.length / 4 / width;
    const side = this.cube ? gl.TEXTURE_CUBE_MAP_POSITIVE_X + face : target;
    const type = this.format === 'rgba16float' ? gl.HALF_FLOAT : gl.UNSIGNED_BYTE;
    gl.texSubImage2D(side, level, 0, firstRow, width, rows, gl.RGBA, type, pixels);
  }

  destroy(): void {
    this.onDestroy(this);
    if (this.texture) this.gl.deleteTexture(this.texture);
    if (this.renderbuffer) this.gl.deleteRenderbuffer(this.renderbuffer);
  }
}
