import type { Device, DeviceBuffer } from '../device/device';

/** A uniform block's words here and on the device; uploads only what changed. */
export class UniformBuffer {
  readonly words: Float32Array<ArrayBuffer>;
  readonly buffer: DeviceBuffer;
  private readonly uploaded: Float32Array<ArrayBuffer>;

  constructor(device: Device, words: number) {
    this.words = new Float32Array(words);
    this.uploaded = new Float32Array(words).fill(NaN);
    this.buffer = device.createBuffer({ usage: 'uniform', size: words * 4 });
  }

  upload(): void {
    if (this.words.every((word, index) => word === this.uploaded[index])) return;
    this.uploaded.set(this.words);
    this.buffer.write(this.words);
  }

  destroy(): void {
    this.buffer.destroy();
  }
}
