import {
  GLSL_TARGET,
  groupFault,
  passFault,
  PassRefused,
  type BoundResources,
  type BufferDescriptor,
  type Device,
  type DeviceBindGroup,
  type DeviceBuffer,
  type DevicePipeline,
  type DeviceProgram,
  type DeviceTexture,
  type DrawCall,
  type GroupLayout,
  type PassDescriptor,
  type PassTimes,
  type PipelineDescriptor,
  type ProgramDescriptor,
  type ProgramLayout,
  type TextureDescriptor,
} from '@brelvin/core';
import { MIPS, PassTimer, RESOLVE } from '../pass-timer';
import { SharedPrograms } from '../shared-programs';
import { Framebuffers, type TexturePart } from './framebuffers';
import { linkProgram, linkProgramNow, pause, type LinkedProgram } from './program';
import { GlBuffer, GlTexture } from './resources';

/** The browser gives no WebGL2 context, or one that cannot draw into float textures. */
export class NoWebGl2 extends Error {}

class GlProgram implements DeviceProgram {
  readonly label: string;
  readonly layout: ProgramLayout;
  readonly vertexBuffers: ProgramDescriptor['vertexBuffers'];

  constructor(
    { label, code, vertexBuffers }: ProgramDescriptor,
    readonly linked: LinkedProgram,
    readonly destroy: () => void,
  ) {
    this.label = label;
    this.layout = code.layout;
    this.vertexBuffers = vertexBuffers;
  }
}

const FENCE_POLL_MS = 2;

/** Antialiasing and depth belong to our own targets. */
const CONTEXT: WebGLContextAttributes = {
  alpha: false,
  antialias: false,
  depth: false,
  stencil: false,
  powerPreference: 'high-performance',
};

/** The device on a canvas's WebGL2 context. After the context is lost, make another. */
export class WebGl2Device implements Device {
  readonly target = GLSL_TARGET;
  private readonly programs = new SharedPrograms<LinkedProgram>(({ program }) => this.gl.deleteProgram(program));
  private readonly framebuffers: Framebuffers;
  private readonly vertexArrays = new Map<string, WebGLVertexArrayObject>();
  private passes = 0;
  private readonly bufferIds = new WeakMap<DeviceBuffer, number>();
  private nextBufferId = 0;
  private readonly timer = new PassTimer(() => this.finished());

  private constructor(
    private readonly gl: WebGL2RenderingContext,
    private readonly canvas: HTMLCanvasElement | OffscreenCanvas,
  ) {
    this.framebuffers = new Framebuffers(gl);
  }

  /** @throws NoWebGl2 */
  static create(canvas: HTMLCanvasElement | OffscreenCanvas): WebGl2Device {
    const gl = (canvas as HTMLCanvasElement).getContext('webgl2', CONTEXT);
    if (!gl) throw new NoWebGl2('This browser gives no WebGL2 context. Switch on hardware acceleration, or use a newer browser.');
    if (!gl.getExtension('EXT_color_buffer_float')) throw new NoWebGl2('This graphics driver cannot draw into floating-point textures.');
    return new WebGl2Device(gl, canvas);
  }

  get statistics(): { compiledPrograms: number; passes: number } {
    return { compiledPrograms: this.programs.count, passes: this.passes };
  }

  createBuffer(descriptor: BufferDescriptor): DeviceBuffer {
    const buffer = new GlBuffer(this.gl, descriptor);
    this.bufferIds.set(buffer, this.nextBufferId++);
    return buffer;
  }

  createTexture(descriptor: TextureDescriptor): DeviceTexture {
    return new GlTexture(this.gl, descriptor, (texture) => this.framebuffers.release(texture));
  }

  async createProgram(descriptor: ProgramDescriptor): Promise<DeviceProgram> {
    const { vertex, fragment } = descriptor.code;
    const attributes = descriptor.vertexBuffers.flatMap((buffer) => buffer.attributes.map(({ name }) => name));
    const key = `${attributes.join()}\n${vertex.text}\n${fragment.text}`;
    const { made, release } = await this.programs.take(key, () => linkProgram(this.gl, descriptor));
    return new GlProgram(descriptor, made, release);
  }

  createOwnProgram(descriptor: ProgramDescriptor): DeviceProgram {
    const linked = linkProgramNow(this.gl, descriptor);
    return new GlProgram(descriptor, linked, () => this.gl.deleteProgram(linked.program));
  }

  createPipeline(descriptor: PipelineDescriptor): DevicePipeline {
    return { descriptor };
  }

  createBindGroup(layout: GroupLayout, resources: BoundResources): DeviceBindGroup {
    const fault = groupFault(layout, resources);
    if (fault) throw new RangeError(fault);
    return { layout, ...resources };
  }

  runPass(pass: PassDescriptor): void {
    const fault = passFault(pass);
    if (fault) throw new PassRefused(fault);
    if (!this.timer.takes(pass.label)) return;
    const { colour, level = 0, face = 0, depth, clear, keepsDepth, viewport, scissor, draws } = pass;
    const { gl } = this;
    this.passes++;
    const onCanvas = colour === 'canvas';
    const target = onCanvas ? this.canvas : (colour ?? depth);
    if (!target) return;
    const [width, height] = [Math.max(1, target.width >> level), Math.max(1, target.height >> level)];
    gl.bindFramebuffer(
      gl.FRAMEBUFFER,
      onCanvas ? null : this.framebuffers.find(colour as GlTexture | undefined, depth as GlTexture | undefined, { level, face }),
    );
    // Rows of a texture begin at the top, as those of its memory do.
    const { x, y } = viewport ?? { x: 0, y: 0 };
    gl.viewport(x, onCanvas ? height - y - (viewport?.height ?? height) : y, viewport?.width ?? width, viewport?.height ?? height);
    if (scissor) {
      gl.enable(gl.SCISSOR_TEST);
      gl.scissor(scissor.x, onCanvas ? height - scissor.y - scissor.height : scissor.y, scissor.width, scissor.height);
    } else gl.disable(gl.SCISSOR_TEST);
    gl.disable(gl.BLEND);
    gl.depthMask(true);
    if (clear) {
      gl.clearColor(...clear);
      gl.clearDepth(1);
      gl.clear((colour ? gl.COLOR_BUFFER_BIT : 0) | (depth && !keepsDepth ? gl.DEPTH_BUFFER_BIT : 0));
    }
    // A texture keeps the top row first, so it is drawn upside down, which also turns triangles round.
    const up = onCanvas ? 1 : -1;
    for (const [index, draw] of draws.entries()) this.draw(draw, up, height, draws[index - 1]);
  }

  /** @param before the drawing before it in its pass, whose state is still set */
  private draw(
    { pipeline, bindings, vertexBuffers, indices, first, count, instances }: DrawCall,
    up: number,
    height: number,
    before?: DrawCall,
  ): void {
    const { gl } = this;
    const { descriptor } = pipeline;
    const { linked } = descriptor.program as GlProgram;
    const sameProgram = before?.pipeline.descriptor.program === descriptor.program;
    if (!sameProgram) {
      gl.useProgram(linked.program);
      gl.uniform4f(linked.deviceTarget, up, height, 0, 0);
    }
    if (before?.pipeline !== pipeline) this.setState(descriptor, up);
    linked.places.forEach((places, number) => {
      const group = bindings[number];
      if (group && !(sameProgram && before.bindings[number] === group)) this.bind(group, places);
    });
    gl.bindVertexArray(this.vertexArray(descriptor.program, vertexBuffers, indices));
    const shape = descriptor.topology === 'lines' ? gl.LINES : gl.TRIANGLES;
    if (indices) gl.drawElementsInstanced(shape, count, gl.UNSIGNED_INT, first * 4, instances);
    else gl.drawArraysInstanced(shape, first, count, instances);
    gl.bindVertexArray(null);
  }

  private bind({ blocks, textures }: DeviceBindGroup, places: LinkedProgram['places'][number]): void {
    const { gl } = this;
    blocks.forEach((block, index) => {
      const point = places.blocks[index];
      if (point !== undefined) gl.bindBufferBase(gl.UNIFORM_BUFFER, point, (block as GlBuffer).handle);
    });
    textures.forEach((texture, index) => {
      const unit = places.textures[index];
      if (unit === undefined) return;
      const { target, texture: handle } = texture as GlTexture;
      gl.activeTexture(gl.TEXTURE0 + unit);
      gl.bindTexture(target, handle ?? null);
    });
  }

  private setState(descriptor: PipelineDescriptor, up: number): void {
    const { gl } = this;
    if (descriptor.depth === 'none') gl.disable(gl.DEPTH_TEST);
    else gl.enable(gl.DEPTH_TEST);
    gl.depthMask(descriptor.depth !== 'test');
    gl.depthFunc(gl.LESS);
    if (descriptor.blend) gl.enable(gl.BLEND);
    else gl.disable(gl.BLEND);
    this.setBlend(descriptor.blend);
    if (descriptor.depthBias) gl.enable(gl.POLYGON_OFFSET_FILL);
    else gl.disable(gl.POLYGON_OFFSET_FILL);
    gl.polygonOffset(descriptor.depthBias?.slope ?? 0, descriptor.depthBias?.steps ?? 0);
    if (descriptor.cull === 'none') gl.disable(gl.CULL_FACE);
    else gl.enable(gl.CULL_FACE);
    gl.cullFace(descriptor.cull === 'front' ? gl.FRONT : gl.BACK);
    gl.frontFace((descriptor.front ?? 'ccw') === (up > 0 ? 'ccw' : 'cw') ? gl.CCW : gl.CW);
  }

  private setBlend(blend: PipelineDescriptor['blend'] = 'add'): void {
    const { gl } = this;
    const [one, zero] = [gl.ONE, gl.ZERO];
    const [colour, alpha] = {
      over: [
        [one, gl.ONE_MINUS_SRC_ALPHA],
        [one, gl.ONE_MINUS_SRC_ALPHA],
      ],
      add: [
        [one, one],
        [one, one],
      ],
      gather: [
        [one, one],
        [zero, gl.ONE_MINUS_SRC_ALPHA],
      ],
      under: [
        [gl.ONE_MINUS_DST_ALPHA, one],
        [gl.ONE_MINUS_DST_ALPHA, one],
      ],
      keep: [
        [zero, gl.SRC_ALPHA],
        [zero, gl.SRC_ALPHA],
      ],
    }[blend] as [[GLenum, GLenum], [GLenum, GLenum]];
    gl.blendFuncSeparate(colour[0], colour[1], alpha[0], alpha[1]);
  }

  private vertexArray(
    { vertexBuffers }: DeviceProgram,
    buffers: readonly DeviceBuffer[],
    indices?: DeviceBuffer,
  ): WebGLVertexArrayObject | null {
    const { gl } = this;
    const key = [vertexBuffers.length, ...buffers.map((each) => this.bufferIds.get(each)), indices && this.bufferIds.get(indices)].join();
    const known = this.vertexArrays.get(key);
    if (known) return known;
    const made = gl.createVertexArray();
    gl.bindVertexArray(made);
    let location = 0;
    vertexBuffers.forEach(({ stride, step, attributes }, index) => {
      gl.bindBuffer(gl.ARRAY_BUFFER, (buffers[index] as GlBuffer | undefined)?.handle ?? null);
      for (const { components, offset } of attributes) {
        gl.enableVertexAttribArray(location);
        gl.vertexAttribPointer(location, components, gl.FLOAT, false, stride, offset);
        gl.vertexAttribDivisor(location, step === 'instance' ? 1 : 0);
        location++;
      }
    });
    if (indices) gl.bindBuffer(gl.ELEMENT_ARRAY_BUFFER, (indices as GlBuffer).handle);
    if (this.vertexArrays.size >= MOST_VERTEX_ARRAYS) this.dropVertexArrays();
    this.vertexArrays.set(key, made);
    return made;
  }

  private dropVertexArrays(): void {
    for (const each of this.vertexArrays.values()) this.gl.deleteVertexArray(each);
    this.vertexArrays.clear();
  }

  resolve(from: DeviceTexture, to: DeviceTexture): void {
    if (!this.timer.takes(RESOLVE)) return;
    const { gl } = this;
    const source = this.framebuffers.find(from as GlTexture);
    const target = this.framebuffers.find(to as GlTexture);
    gl.bindFramebuffer(gl.READ_FRAMEBUFFER, source);
    gl.bindFramebuffer(gl.DRAW_FRAMEBUFFER, target);
    gl.blitFramebuffer(0, 0, from.width, from.height, 0, 0, to.width, to.height, gl.COLOR_BUFFER_BIT, gl.NEAREST);
  }

  fillMips(texture: DeviceTexture): void {
    if (!this.timer.takes(MIPS)) return;
    const { target, texture: handle } = texture as GlTexture;
    this.gl.bindTexture(target, handle ?? null);
    this.gl.generateMipmap(target);
  }

  readPixels(texture: DeviceTexture): Promise<Uint8Array<ArrayBuffer>> {
    return this.read(texture, new Uint8Array(texture.width * texture.height * 4), this.gl.UNSIGNED_BYTE);
  }

  readFloats(texture: DeviceTexture, level = 0, face = 0): Promise<Float32Array<ArrayBuffer>> {
    const pixels = Math.max(1, texture.width >> level) * Math.max(1, texture.height >> level);
    return this.read(texture, new Float32Array(pixels * 4), this.gl.FLOAT, { level, face });
  }

  private async read<T extends ArrayBufferView>(
    texture: DeviceTexture,
    pixels: T,
    type: GLenum,
    part: TexturePart = { level: 0, face: 0 },
  ): Promise<T> {
    const { gl } = this;
    const buffer = gl.createBuffer();
    gl.bindFramebuffer(gl.FRAMEBUFFER, this.framebuffers.find(texture as GlTexture, undefined, part));
    gl.bindBuffer(gl.PIXEL_PACK_BUFFER, buffer);
    gl.bufferData(gl.PIXEL_PACK_BUFFER, pixels.byteLength, gl.STREAM_READ);
    gl.readPixels(0, 0, Math.max(1, texture.width >> part.level), Math.max(1, texture.height >> part.level), gl.RGBA, type, 0);
    gl.bindBuffer(gl.PIXEL_PACK_BUFFER, null);
    await this.finished();
    gl.bindBuffer(gl.PIXEL_PACK_BUFFER, buffer);
    gl.getBufferSubData(gl.PIXEL_PACK_BUFFER, 0, pixels);
    gl.bindBuffer(gl.PIXEL_PACK_BUFFER, null);
    gl.deleteBuffer(buffer);
    return pixels;
  }

  async finished(): Promise<void> {
    const { gl } = this;
    const fence = gl.fenceSync(gl.SYNC_GPU_COMMANDS_COMPLETE, 0);
    gl.flush();
    while (fence && !gl.isContextLost()) {
      const state = gl.clientWaitSync(fence, 0, 0);
      if (state === gl.ALREADY_SIGNALED || state === gl.CONDITION_SATISFIED) break;
      await pause(FENCE_POLL_MS);
    }
    gl.deleteSync(fence);
  }

  timePasses(draw: () => void): Promise<PassTimes> {
    // Reading a pixel waits for all that was asked for before it.
    const pixel = this.createTexture({ width: 1, height: 1, format: 'rgba8unorm', samples: 1 }) as GlTexture;
    const { gl } = this;
    const wait = (): void => {
      gl.bindFramebuffer(gl.FRAMEBUFFER, this.framebuffers.find(pixel));
      gl.readPixels(0, 0, 1, 1, gl.RGBA, gl.UNSIGNED_BYTE, new Uint8Array(4));
    };
    return this.timer.byWaiting(draw, wait).finally(() => pixel.destroy());
  }

  async makeReady(draw: () => void): Promise<void> {
    draw();
    await this.finished();
  }

  destroy(): void {
    this.dropVertexArrays();
    this.gl.getExtension('WEBGL_lose_context')?.loseContext();
  }
}

const MOST_VERTEX_ARRAYS = 64;
