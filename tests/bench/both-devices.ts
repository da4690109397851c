import { FrameRenderer } from '@brelvin/core';
import { WebGl2Device, WebGpuDevice } from '@brelvin/devices';
import { demoFrames, type NamedTimes } from './demo-frames';

/** Frames of the demos on each device, in one page. */
export interface BothFigures {
  readonly webgl2: readonly NamedTimes[];
  readonly webgpu: readonly NamedTimes[];
}

export async function run(): Promise<BothFigures> {
  const onWebGl2 = WebGl2Device.create(new OffscreenCanvas(512, 512));
  const webgl2 = await demoFrames(onWebGl2, new FrameRenderer(onWebGl2));
  onWebGl2.destroy();
  const onWebGpu = await WebGpuDevice.create(navigator.gpu, new OffscreenCanvas(512, 512));
  const webgpu = await demoFrames(onWebGpu, new FrameRenderer(onWebGpu));
  onWebGpu.destroy();
  return { webgl2, webgpu };
}
