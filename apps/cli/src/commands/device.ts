import { openNodeDevice, NoWebGpu } from '@brelvin/devices/node';
import type { ExitCode, Output } from '../output';
import { BadFile } from '../read-file';

/** Says whether this machine can draw, and with what. @throws BadFile with what to install */
export async function sayDevice(output: Output): Promise<ExitCode> {
  const device = await openNodeDevice().catch((error: unknown) => {
    throw error instanceof NoWebGpu ? new BadFile(error.message) : error;
  });
  output.out(`Pictures are drawn with WebGPU: ${device.adapter}.`);
  device.destroy();
  return 0;
}
