import { openStudio, type Studio } from '@brelvin/core';
import { WebGl2Device, WebGpuDevice } from '@brelvin/devices';

/** What pictures are drawn with in a page: WebGPU where the browser has an adapter for it. */
export async function easel(): Promise<Studio> {
  const device = await WebGpuDevice.create(navigator.gpu).catch(() => WebGl2Device.create(new OffscreenCanvas(1, 1)));
  return openStudio(device);
}
