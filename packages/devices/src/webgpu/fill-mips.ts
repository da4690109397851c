import type { GpuTexture } from './gpu-resources';

/** A pixel in the middle of four of the larger level is their mean. */
const CODE = `
@group(0) @binding(0) var larger: texture_2d<f32>;
@group(0) @binding(1) var between: sampler;
@vertex fn vertexStage(@builtin(vertex_index) number: u32) -> @builtin(position) vec4f {
  return vec4f(select(-1.0, 3.0, number == 1u), select(-1.0, 3.0, number == 2u), 0.0, 1.0);
}
@fragment fn fragmentStage(@builtin(position) place: vec4f) -> @location(0) vec4f {
  let half = vec2f(max(textureDimensions(larger) / 2u, vec2u(1u)));
  return textureSampleLevel(larger, between, place.xy / half, 0.0);
}
`;

/** Fills the smaller levels of textures, each from the one above it. */
export class MipFiller {
  private readonly pipelines = new Map<GPUTextureFormat, GPURenderPipeline>();
  private module?: GPUShaderModule;
  private sampler?: GPUSampler;

  constructor(private readonly gpu: GPUDevice) {}

  /** @param stamped what else each of its passes says */
  fill(texture: GpuTexture, encoder: GPUCommandEncoder, stamped: () => Pick<GPURenderPassDescriptor, 'timestampWrites'> | undefined): void {
    const pipeline = this.pipelineFor(texture.format);
    this.sampler ??= this.gpu.createSampler({ minFilter: 'linear', magFilter: 'linear' });
    for (let face = 0; face < (texture.cube ? 6 : 1); face++)
      for (let level = 1; level < texture.mipLevels; level++) {
        const group = this.gpu.createBindGroup({
          layout: pipeline.getBindGroupLayout(0),
          entries: [
            { binding: 0, resource: texture.part(level - 1, face) },
            { binding: 1, resource: this.sampler },
          ],
        });
        const pass = encoder.beginRenderPass({
          colorAttachments: [{ view: texture.part(level, face), loadOp: 'clear', storeOp: 'store' }],
          ...stamped(),
        });
        pass.setPipeline(pipeline);
        pass.setBindGroup(0, group);
        pass.draw(3);
        pass.end();
      }
  }

  private pipelineFor(format: GPUTextureFormat): GPURenderPipeline {
    const known = this.pipelines.get(format);
    if (known) return known;
    this.module ??= this.gpu.createShaderModule({ label: 'mips', code: CODE });
    const made = this.gpu.createRenderPipeline({
      label: 'mips',
      layout: 'auto',
      vertex: { module: this.module },
      fragment: { module: this.module, targets: [{ format }] },
    });
    this.pipelines.set(format, made);
    return made;
  }
}
