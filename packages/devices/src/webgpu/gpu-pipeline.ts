import { type DevicePipeline, ENTRY_POINTS, ProgramRefused, type PipelineDescriptor, type VertexBufferLayout } from '@brelvin/core';
import type { BindGroups } from './bind-groups';
import type { GpuProgram } from './gpu-program';

/** A way of drawing; WebGPU's own pipeline is made when it is first drawn with, or made ready before. */
export class GpuPipeline implements DevicePipeline {
  /** Of the program's vertex buffers those that it reads: eight is all that every device has room for. */
  readonly slots: readonly number[];
  private readonly buffers: GPUVertexBufferLayout[];
  private made?: GPURenderPipeline;
  private making?: Promise<void>;

  constructor(
    private readonly gpu: GPUDevice,
    private readonly groups: BindGroups,
    readonly descriptor: PipelineDescriptor,
  ) {
    const { vertexBuffers, attributes } = descriptor.program as GpuProgram;
    const layouts = vertexBuffers.map((buffer) => bufferLayout(buffer, attributes));
    this.slots = [...layouts.keys()].filter((slot) => (layouts[slot]?.attributes ?? []).length > 0);
    this.buffers = this.slots.flatMap((slot) => layouts[slot] ?? []);
  }

  get handle(): GPURenderPipeline {
    return (this.made ??= this.gpu.createRenderPipeline(this.described()));
  }

  /** Whether drawing with it keeps nobody waiting; the frame's own programs are few, and made where they are first drawn. */
  get isReady(): boolean {
    return this.made !== undefined || (this.descriptor.program as GpuProgram).isOwn;
  }

  /** @throws ProgramRefused */
  makeReady(): Promise<void> {
    return (this.making ??= this.gpu.createRenderPipelineAsync(this.described()).then(
      (made) => void (this.made ??= made),
      (error: unknown) => {
        throw new ProgramRefused('link', error instanceof Error ? error.message : String(error));
      },
    ));
  }

  private described(): GPURenderPipelineDescriptor {
    const { program: asked, into, depth, blend, cull, front = 'ccw', depthBias, topology = 'triangles' } = this.descriptor;
    const { label, layout, modules } = asked as GpuProgram;
    const lines = topology === 'lines';
    return {
      label,
      layout: this.gpu.createPipelineLayout({ bindGroupLayouts: layout.map((each) => this.groups.layoutOf(each)) }),
      vertex: {
        module: modules.vertex,
        entryPoint: ENTRY_POINTS.vertex,
        buffers: this.buffers,
      },
      fragment: {
        module: modules.fragment,
        entryPoint: ENTRY_POINTS.fragment,
        targets: into.colour ? [{ format: into.colour, blend: blend && BLENDS[blend] }] : [],
      },
      primitive: { topology: lines ? 'line-list' : 'triangle-list', cullMode: lines ? 'none' : cull, frontFace: front },
      depthStencil: into.depth
        ? {
            format: 'depth24plus',
            depthCompare: depth === 'none' ? 'always' : 'less',
            depthWriteEnabled: depth === 'test and write',
            ...(depthBias && !lines ? { depthBias: depthBias.steps, depthBiasSlopeScale: depthBias.slope } : {}),
          }
        : undefined,
      multisample: { count: into.samples },
    };
  }
}

const both = (srcFactor: GPUBlendFactor, dstFactor: GPUBlendFactor): GPUBlendState => ({
  color: { srcFactor, dstFactor },
  alpha: { srcFactor, dstFactor },
});

const BLENDS: Readonly<Record<NonNullable<PipelineDescriptor['blend']>, GPUBlendState>> = {
  over: both('one', 'one-minus-src-alpha'),
  add: both('one', 'one'),
  gather: { color: { srcFactor: 'one', dstFactor: 'one' }, alpha: { srcFactor: 'zero', dstFactor: 'one-minus-src-alpha' } },
  under: both('one-minus-dst-alpha', 'one'),
  keep: both('zero', 'src-alpha'),
};

const FORMATS = { 1: 'float32', 2: 'float32x2', 3: 'float32x3', 4: 'float32x4' } as const;

interface GpuVertexBuffer extends GPUVertexBufferLayout {
  readonly attributes: readonly GPUVertexAttribute[];
}

/** @param names the program's attributes, each at its location */
function bufferLayout({ stride, step, attributes }: VertexBufferLayout, names: readonly string[]): GpuVertexBuffer {
  return {
    arrayStride: stride,
    stepMode: step,
    attributes: attributes
      .map(({ name, components, offset }) => ({ shaderLocation: names.indexOf(name), format: FORMATS[components], offset }))
      .filter(({ shaderLocation }) => shaderLocation >= 0),
  };
}
