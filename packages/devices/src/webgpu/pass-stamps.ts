import type { PassTimes } from '@brelvin/core';

/** Passes of one drawing that are timed; those beyond are not. */
const MOST_PASSES = 256;
const STAMP_BYTES = 8;
const NANOSECONDS = 1e6;

/** When each pass of a drawing began and ended, by the device's clock. WebGPU, section 20.4 (timestamp query). */
export class PassStamps {
  private readonly labels: string[] = [];
  private readonly queries: GPUQuerySet;
  private readonly resolved: GPUBuffer;
  private readonly readable: GPUBuffer;

  constructor(gpu: GPUDevice) {
    const count = MOST_PASSES * 2;
    this.queries = gpu.createQuerySet({ type: 'timestamp', count });
    const size = count * STAMP_BYTES;
    this.resolved = gpu.createBuffer({ size, usage: GPUBufferUsage.QUERY_RESOLVE | GPUBufferUsage.COPY_SRC });
    this.readable = gpu.createBuffer({ size, usage: GPUBufferUsage.COPY_DST | GPUBufferUsage.MAP_READ });
  }

  /** What a pass says that is to be timed. */
  next(label = ''): Pick<GPURenderPassDescriptor, 'timestampWrites'> | undefined {
    const { queries: querySet, labels } = this;
    if (labels.length >= MOST_PASSES) return undefined;
    const beginningOfPassWriteIndex = labels.push(label) * 2 - 2;
    return { timestampWrites: { querySet, beginningOfPassWriteIndex, endOfPassWriteIndex: beginningOfPassWriteIndex + 1 } };
  }

  /** After the last pass. */
  resolve(encoder: GPUCommandEncoder): void {
    const count = this.labels.length * 2;
    if (count === 0) return;
    encoder.resolveQuerySet(this.queries, 0, count, this.resolved, 0);
    encoder.copyBufferToBuffer(this.resolved, 0, this.readable, 0, count * STAMP_BYTES);
  }

  async read(): Promise<PassTimes> {
    try {
      await this.readable.mapAsync(GPUMapMode.READ);
      const stamps = new BigInt64Array(this.readable.getMappedRange());
      const passes = new Map<string, number>();
      this.labels.forEach((label, index) => {
        const taken = Number((stamps[index * 2 + 1] ?? 0n) - (stamps[index * 2] ?? 0n)) / NANOSECONDS;
        passes.set(label, (passes.get(label) ?? 0) + Math.max(0, taken));
      });
      return { by: 'timestamps', passes: [...passes].map(([label, milliseconds]) => ({ label, milliseconds })) };
    } finally {
      for (const each of [this.queries, this.resolved, this.readable]) each.destroy();
    }
  }
}
