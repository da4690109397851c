import type { Device } from '@brelvin/core';
import { WebGl2Device } from '../webgl2/webgl2-device';

/** Where specs find what they run on. */
interface Host {
  /** A device with a square canvas. */
  open(side: number): Promise<Device>;
  readonly gpu: () => Promise<GPU | undefined>;
}

let host: Host = {
  open: async (side) => WebGl2Device.create(new OffscreenCanvas(side, side)),
  gpu: async () => navigator.gpu,
};

/** A device for a spec: WebGL2 in a page, WebGPU in Node. */
export function openDevice(side: number): Promise<Device> {
  return host.open(side);
}

/** WebGPU itself, as the page or Node has it. */
export async function openGpu(): Promise<GPUDevice> {
  const adapter = await (await host.gpu())?.requestAdapter();
  if (!adapter) throw new Error('the tests need WebGPU');
  return adapter.requestDevice();
}

/** Has specs run elsewhere. */
export function runSpecsOn(other: Host): void {
  host = other;
}
