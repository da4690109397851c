import { runSpecsOn } from '../testing/open-device';
import type { GpuCanvas } from '../webgpu/webgpu-device';
import { nodeGpu, openNodeDevice } from './node-device';

/** Stands for a canvas, which Node lacks: a texture of its size. */
class TextureCanvas implements GpuCanvas {
  private texture?: GPUTexture;

  constructor(
    readonly width: number,
    readonly height: number,
  ) {}

  getContext(): GPUCanvasContext {
    const configure = ({ device, format }: GPUCanvasConfiguration): undefined => {
      this.texture = device.createTexture({ size: [this.width, this.height], format, usage: GPUTextureUsage.RENDER_ATTACHMENT });
    };
    return { canvas: this, configure, getCurrentTexture: () => this.texture } as unknown as GPUCanvasContext;
  }
}

/** Loaded before the specs of devices: they run on WebGPU, without a page. */
runSpecsOn({ open: (side) => openNodeDevice(new TextureCanvas(side, side)), gpu: nodeGpu });
