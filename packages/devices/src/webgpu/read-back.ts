import { halfValue } from '@brelvin/core';
import { PIXEL_BYTES, type GpuTexture } from './gpu-resources';

/** Rows of a buffer begin at multiples of this; WebGPU, section 3.6.2. */
const ROW_STEP = 256;

/** Copies a level of a texture, of a cube of one face, out of the device; rows from the top, close behind each other. */
export async function readRows(
  gpu: GPUDevice,
  texture: GpuTexture,
  { level, face }: { readonly level: number; readonly face: number },
): Promise<ArrayBuffer> {
  const [width, height] = [Math.max(1, texture.width >> level), Math.max(1, texture.height >> level)];
  const rowBytes = width * PIXEL_BYTES[texture.format];
  const bytesPerRow = Math.ceil(rowBytes / ROW_STEP) * ROW_STEP;
  const buffer = gpu.createBuffer({ size: bytesPerRow * height, usage: GPUBufferUsage.COPY_DST | GPUBufferUsage.MAP_READ });
  try {
    const encoder = gpu.createCommandEncoder();
    encoder.copyTextureToBuffer({ texture: texture.handle, mipLevel: level, origin: [0, 0, face] }, { buffer, bytesPerRow }, [
      width,
      height,
    ]);
    gpu.queue.submit([encoder.finish()]);
    await buffer.mapAsync(GPUMapMode.READ);
    const mapped = new Uint8Array(buffer.getMappedRange());
    const rows = new Uint8Array(rowBytes * height);
    for (let row = 0; row < height; row++) rows.set(mapped.subarray(row * bytesPerRow, row * bytesPerRow + rowBytes), row * rowBytes);
    return rows.buffer;
  } finally {
    buffer.destroy();
  }
}

/** Numbers of a float texture's rows. */
export function floatsOf({ format }: GpuTexture, rows: ArrayBuffer): Float32Array<ArrayBuffer> {
  return format === 'rgba32float' ? new Float32Array(rows) : Float32Array.from(new Uint16Array(rows), halfValue);
}
