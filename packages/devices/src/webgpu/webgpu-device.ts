import {
  CANVAS_FORMAT,
  DeviceLost,
  groupFault,
  passFault,
  PassRefused,
  WGSL_TARGET,
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
  type PictureSize,
  type PipelineDescriptor,
  type ProgramDescriptor,
  type TextureDescriptor,
} from '@brelvin/core';
import { MIPS, PassTimer, RESOLVE } from '../pass-timer';
import { SharedPrograms } from '../shared-programs';
import { BindGroups, type GpuBindGroup } from './bind-groups';
import { MipFiller } from './fill-mips';
import { GpuPipeline } from './gpu-pipeline';
import { createModules, GpuProgram, takenModules, type GpuModules } from './gpu-program';
import { GpuBuffer, GpuTexture } from './gpu-resources';
import { floatsOf, readRows } from './read-back';
import { PassStamps } from './pass-stamps';

/** There is no WebGPU here, or no adapter that can draw. */
export class NoWebGpu extends Error {}

/** Milliseconds within which a device that is gone says so. */
const LOSS_IS_TOLD_MS = 100;

/** By which a device tells when a pass began and ended. */
const STAMPS = ['timestamp-query'] as const;

/** What shows pictures; those that go nowhere else need none. */
export interface GpuCanvas {
  getContext(kind: 'webgpu'): GPUCanvasContext | null;
}

/** The device on WebGPU, in a page or in Node. After it is lost, make another. */
export class WebGpuDevice implements Device {
  readonly target = WGSL_TARGET;
  private readonly groups: BindGroups;
  private readonly mips: MipFiller;
  private readonly programs = new SharedPrograms<GpuModules>();
  private encoder?: GPUCommandEncoder;
  private passes = 0;
  private fault?: string;
  private destroyed = false;
  private readonly timer = new PassTimer(() => this.finished());
  /** While passes are timed by the device’s clock. */
  private stamps?: PassStamps;
  /** What drawings wait for, while they are made ready. */
  private readying?: Set<GpuPipeline>;

  private constructor(
    private readonly gpu: GPUDevice,
    /** In the driver's words. */
    readonly adapter: string,
    private readonly context?: GPUCanvasContext,
  ) {
    this.groups = new BindGroups(gpu);
    this.mips = new MipFiller(gpu);
    gpu.addEventListener('uncapturederror', ({ error }) => (this.fault ??= error.message));
  }

  /** @throws NoWebGpu */
  static async create(gpu: GPU | undefined, canvas?: GpuCanvas): Promise<WebGpuDevice> {
    if (!gpu) throw new NoWebGpu('This browser has no WebGPU, or gives it only to pages that come by https.');
    const adapter = await gpu.requestAdapter({ powerPreference: 'high-performance' });
    if (!adapter) throw new NoWebGpu('There is no graphics adapter for WebGPU.');
    const { maxTextureDimension2D } = adapter.limits;
    const requiredFeatures = STAMPS.filter((feature) => adapter.features.has(feature));
    const device = await adapter.requestDevice({ requiredLimits: { maxTextureDimension2D }, requiredFeatures }).catch((error: unknown) => {
      throw new NoWebGpu(`The graphics adapter gives no WebGPU device: ${error instanceof Error ? error.message : String(error)}`);
    });
    const context = canvas?.getContext('webgpu') ?? undefined;
    if (canvas && !context) throw new NoWebGpu('The canvas gives no WebGPU context.');
    context?.configure({ device, format: CANVAS_FORMAT, alphaMode: 'opaque' });
    const { description, device: card, vendor, architecture } = adapter.info;
    const words = [description || card, vendor, architecture].filter(Boolean).join(', ');
    return new WebGpuDevice(device, words || 'without a name', context);
  }

  get statistics(): { compiledPrograms: number; passes: number } {
    return { compiledPrograms: this.programs.count, passes: this.passes };
  }

  /** Comes when the device is gone, with the reason; not after `destroy`. */
  get lost(): Promise<string> {
    return new Promise((resolve) => {
      void this.gpu.lost.then(({ message }) => {
        if (!this.destroyed) resolve(message);
      });
    });
  }

  createBuffer(descriptor: BufferDescriptor): DeviceBuffer {
    return new GpuBuffer(this.gpu, descriptor, this.submit);
  }

  createTexture(descriptor: TextureDescriptor): DeviceTexture {
    return new GpuTexture(this.gpu, descriptor, this.submit);
  }

  async createProgram(descriptor: ProgramDescriptor): Promise<DeviceProgram> {
    const { vertex, fragment } = descriptor.code;
    const take = this.programs.take(`${vertex.text}\n${fragment.text}`, () => takenModules(this.gpu, descriptor));
    const { made, release } = await this.asked(take);
    return new GpuProgram(descriptor, made, release);
  }

  createOwnProgram(descriptor: ProgramDescriptor): DeviceProgram {
    return new GpuProgram(descriptor, createModules(this.gpu, descriptor), () => undefined, true);
  }

  createPipeline(descriptor: PipelineDescriptor): DevicePipeline {
    return new GpuPipeline(this.gpu, this.groups, descriptor);
  }

  createBindGroup(layout: GroupLayout, resources: BoundResources): DeviceBindGroup {
    const fault = groupFault(layout, resources);
    if (fault) throw new RangeError(fault);
    return this.groups.create(layout, resources);
  }

  runPass(pass: PassDescriptor): void {
    const fault = passFault(pass);
    if (fault) throw new PassRefused(fault);
    this.tellFault();
    if (!this.timer.takes(pass.label)) return;
    const { colour, level = 0, depth, scissor, viewport, draws } = pass;
    const size = this.sizeOf(colour ?? depth, level);
    this.passes++;
    const encoder = this.recording.beginRenderPass({ ...this.attachments(pass), ...this.stamps?.next(pass.label) });
    if (viewport) encoder.setViewport(viewport.x, viewport.y, viewport.width, viewport.height, 0, 1);
    if (scissor) {
      // Only what lies on the target counts.
      const [left, top] = [Math.max(0, scissor.x), Math.max(0, scissor.y)];
      const right = Math.min(size.width, scissor.x + scissor.width);
      const bottom = Math.min(size.height, scissor.y + scissor.height);
      encoder.setScissorRect(Math.min(left, size.width), Math.min(top, size.height), Math.max(0, right - left), Math.max(0, bottom - top));
    }
    const ready = draws.filter((draw) => this.isReady(draw));
    for (const [index, draw] of ready.entries()) this.draw(encoder, draw, ready[index - 1]);
    encoder.end();
  }

  /** While drawings are made ready, those that are not yet are left out. */
  private isReady({ pipeline }: DrawCall): boolean {
    if (!this.readying || (pipeline as GpuPipeline).isReady) return true;
    this.readying.add(pipeline as GpuPipeline);
    return false;
  }

  private sizeOf(target: PassDescriptor['colour'], level: number): { readonly width: number; readonly height: number } {
    if (target === undefined) return { width: 0, height: 0 };
    const { width, height }: PictureSize = target === 'canvas' ? this.canvas.getCurrentTexture() : target;
    return { width: Math.max(1, width >> level), height: Math.max(1, height >> level) };
  }

  private get canvas(): GPUCanvasContext {
    if (!this.context) throw new PassRefused('this device has no canvas');
    return this.context;
  }

  private attachments({ colour, level, face, depth, clear, keepsDepth }: PassDescriptor): GPURenderPassDescriptor {
    const view = colour === 'canvas' ? this.canvas.getCurrentTexture().createView() : (colour as GpuTexture | undefined)?.part(level, face);
    return {
      colorAttachments: view ? [{ view, loadOp: clear ? 'clear' : 'load', storeOp: 'store', clearValue: clear && [...clear] }] : [],
      depthStencilAttachment: depth && {
        view: (depth as GpuTexture).part(),
        depthLoadOp: clear && !keepsDepth ? 'clear' : 'load',
        depthStoreOp: 'store',
        depthClearValue: 1,
      },
    };
  }

  /** @param before the drawing before it in its pass, whose state is still set */
  private draw(encoder: GPURenderPassEncoder, call: DrawCall, before?: DrawCall): void {
    const { pipeline, bindings, vertexBuffers, indices, first, count, instances } = call;
    const samePipeline = before?.pipeline === pipeline;
    if (!samePipeline) encoder.setPipeline((pipeline as GpuPipeline).handle);
    pipeline.descriptor.program.layout.forEach(({ key }, number) => {
      const group = key === '' ? undefined : (bindings[number] as GpuBindGroup | undefined);
      if (!(samePipeline && before.bindings[number] === bindings[number])) encoder.setBindGroup(number, group?.handle ?? this.groups.empty);
    });
    (pipeline as GpuPipeline).slots.forEach((number, slot) => encoder.setVertexBuffer(slot, (vertexBuffers[number] as GpuBuffer).handle));
    if (indices) {
      encoder.setIndexBuffer((indices as GpuBuffer).handle, 'uint32');
      encoder.drawIndexed(count, instances, first);
    } else encoder.draw(count, instances, first);
  }

  resolve(from: DeviceTexture, to: DeviceTexture): void {
    if (!this.timer.takes(RESOLVE)) return;
    if (from.samples === 1) {
      const [texture, destination] = [(from as GpuTexture).handle, (to as GpuTexture).handle];
      this.recording.copyTextureToTexture({ texture }, { texture: destination }, [from.width, from.height]);
      return;
    }
    const [view, resolveTarget] = [(from as GpuTexture).part(), (to as GpuTexture).part()];
    const colorAttachments = [{ view, resolveTarget, loadOp: 'load', storeOp: 'store' }] as const;
    this.recording.beginRenderPass({ colorAttachments, ...this.stamps?.next(RESOLVE) }).end();
  }

  fillMips(texture: DeviceTexture): void {
    if (this.timer.takes(MIPS)) this.mips.fill(texture as GpuTexture, this.recording, () => this.stamps?.next(MIPS));
  }

  async readPixels(texture: DeviceTexture): Promise<Uint8Array<ArrayBuffer>> {
    this.submit();
    return new Uint8Array(await this.asked(readRows(this.gpu, texture as GpuTexture, { level: 0, face: 0 })));
  }

  async readFloats(texture: DeviceTexture, level = 0, face = 0): Promise<Float32Array<ArrayBuffer>> {
    this.submit();
    return floatsOf(texture as GpuTexture, await this.asked(readRows(this.gpu, texture as GpuTexture, { level, face })));
  }

  async makeReady(draw: () => void): Promise<void> {
    const waited = (this.readying = new Set());
    try {
      draw();
    } finally {
      this.readying = undefined;
    }
    await this.asked(Promise.all([...waited].map((pipeline) => pipeline.makeReady())));
    await this.finished();
  }

  async timePasses(draw: () => void): Promise<PassTimes> {
    if (!STAMPS.every((feature) => this.gpu.features.has(feature))) return this.timer.byDifference(draw);
    // The first drawing may make the driver ready.
    draw();
    await this.finished();
    const stamps = (this.stamps = new PassStamps(this.gpu));
    try {
      draw();
    } finally {
      this.stamps = undefined;
    }
    stamps.resolve(this.recording);
    this.submit();
    return this.asked(stamps.read());
  }

  async finished(): Promise<void> {
    this.submit();
    await this.asked(this.gpu.queue.onSubmittedWorkDone());
    this.tellFault();
  }

  /** What fails because the device is gone is told as what it is. */
  private async asked<T>(work: Promise<T>): Promise<T> {
    try {
      return await work;
    } catch (error) {
      // The loss itself may be told a moment later.
      const lost = await Promise.race([
        this.gpu.lost.then(() => true),
        new Promise<false>((resolve) => setTimeout(() => resolve(false), LOSS_IS_TOLD_MS)),
      ]);
      throw lost ? new DeviceLost('The graphics device was lost.') : error;
    }
  }

  /** What the driver refuses is heard of later; it is a defect of ours, and told as soon as it is known. */
  private tellFault(): void {
    const { fault } = this;
    this.fault = undefined;
    if (fault !== undefined) throw new PassRefused(fault);
  }

  destroy(): void {
    this.destroyed = true;
    this.encoder = undefined;
    this.gpu.destroy();
  }

  /** What is asked for is collected until something is written or read, so that all takes effect in its order. */
  private get recording(): GPUCommandEncoder {
    return (this.encoder ??= this.gpu.createCommandEncoder());
  }

  private readonly submit = (): void => {
    if (!this.encoder) return;
    this.gpu.queue.submit([this.encoder.finish()]);
    this.encoder = undefined;
  };
}
