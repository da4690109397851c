import { existsSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { NoWebGpu, WebGpuDevice, type GpuCanvas } from '../webgpu/webgpu-device';

export { NoWebGpu };

/** Where the system keeps what its graphics cards are reached by. */
const CARDS = ['/dev/dri', '/dev/nvidiactl', '/dev/dxg'];
/** The software driver that Debian's browser brings. */
const SOFTWARE_DRIVER = '/usr/lib/chromium/vk_swiftshader_icd.json';

const HOW = 'Install a Vulkan driver for the graphics card, or Debian’s packages libvulkan1 and chromium, whose software driver will do.';

/** Dawn ends with the object that it was asked through, even while devices are in use: one is kept for all of them. */
let opened: GPU | undefined;

/**
 * The device in Node: on the graphics card where there is one, else on a software driver.
 *
 * @param canvas for pictures that are shown; nothing in Node has one of its own
 * @throws NoWebGpu with what to install
 */
export async function openNodeDevice(canvas?: GpuCanvas): Promise<WebGpuDevice> {
  try {
    return await WebGpuDevice.create(await nodeGpu(), canvas);
  } catch (error) {
    throw error instanceof NoWebGpu ? new NoWebGpu(`There is no graphics adapter on this machine. ${HOW}`) : error;
  }
}

/**
 * WebGPU itself.
 *
 * @throws NoWebGpu where its package is not installed
 */
export async function nodeGpu(): Promise<GPU> {
  return (opened ??= await startGpu());
}

async function startGpu(): Promise<GPU> {
  const { create, globals } = await import('webgpu').catch(() => {
    throw new NoWebGpu('The package webgpu is not installed: run npm install without leaving out optional packages.');
  });
  Object.assign(globalThis, globals);
  const { env, platform } = process;
  if (platform === 'linux' && !CARDS.some((each) => existsSync(each)) && existsSync(SOFTWARE_DRIVER)) {
    // The second is the older name of the first.
    env['VK_DRIVER_FILES'] ??= SOFTWARE_DRIVER;
    env['VK_ICD_FILENAMES'] ??= env['VK_DRIVER_FILES'];
    env['XDG_RUNTIME_DIR'] ??= tmpdir();
  }
  return create([]);
}
