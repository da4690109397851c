import { openStudio, type Studio } from '@brelvin/core';
import { openNodeDevice, NoWebGpu } from '@brelvin/devices/node';
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
