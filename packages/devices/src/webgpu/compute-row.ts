import { ENTRY_POINTS, type TargetCode } from '@brelvin/core';

const ROW_BYTES = 256;
/** Pixels whose words fit into a row of a copy. */
export const LONGEST_ROW = ROW_BYTES / 16;

/**
 * Draws a row of pixels of four whole numbers each, as a program computes them.
 *
 * @throws Error in the driver's words, with the program
 */
export async function computeRow(
  gpu: GPUDevice,
  { vertex, fragment }: Pick<TargetCode, 'vertex' | 'fragment'>,
  pixels: number,
): Promise<Uint32Array> {
  gpu.pushErrorScope('validation');
  const module = (code: string): GPUShaderModule => gpu.createShaderModule({ code });
  const pipeline = gpu.createRenderPipeline({
    layout: 'auto',
    vertex: { module: module(vertex.text), entryPoint: ENTRY_POINTS.vertex },
    fragment: { module: module(fragment.text), entryPoint: ENTRY_POINTS.fragment, targets: [{ format: 'rgba32uint' }] },
  });
  const target = gpu.createTexture({
    size: [pixels, 1],
    format: 'rgba32uint',
    usage: GPUTextureUsage.RENDER_ATTACHMENT | GPUTextureUsage.COPY_SRC,
  });
  const buffer = gpu.createBuffer({ size: ROW_BYTES, usage: GPUBufferUsage.COPY_DST | GPUBufferUsage.MAP_READ });
  try {
    const encoder = gpu.createCommandEncoder();
    const pass = encoder.beginRenderPass({ colorAttachments: [{ view: target.createView(), loadOp: 'clear', storeOp: 'store' }] });
    pass.setPipeline(pipeline);
    pass.draw(3);
    pass.end();
    encoder.copyTextureToBuffer({ texture: target }, { buffer, bytesPerRow: ROW_BYTES }, [pixels, 1]);
    gpu.queue.submit([encoder.finish()]);
    const fault = await gpu.popErrorScope();
    if (fault) throw new Error(`${fault.message}\n${fragment.text}`);
    await buffer.mapAsync(GPUMapMode.READ);
    return new Uint32Array(buffer.getMappedRange().slice(0, pixels * 16));
  } finally {
    buffer.destroy();
    target.destroy();
  }
}
