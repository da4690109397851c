import { openStudio, type Studio } from '@brelvin/core';
import { nodeGpu, openNodeDevice, NoWebGpu } from '@brelvin/devices/node';
import { BadFile } from '../read-file';

/** Uses what pictures are drawn with, and gives it back. @throws BadFile where this machine cannot draw */
export async function withStudio<T>(use: (studio: Studio) => Promise<T>): Promise<T> {
  const device = await openNodeDevice().catch((error: unknown) => {
    throw error instanceof NoWebGpu ? new BadFile(error.message) : error;
  });
  try {
    return await use(openStudio(device));
  } finally {
    device.destroy();
  }
}

/** WebGPU itself, for what is no picture. @throws BadFile where this machine has none */
export async function withGpu<T>(use: (gpu: GPUDevice, adapter: string) => Promise<T>): Promise<T> {
  const adapter = await (await nodeGpu()).requestAdapter();
  if (!adapter) throw new BadFile('There is no graphics adapter on this machine: brelvin device says what to install.');
  const gpu = await adapter.requestDevice();
  try {
    return await use(gpu, adapter.info.description || adapter.info.vendor);
  } finally {
    gpu.destroy();
  }
}
