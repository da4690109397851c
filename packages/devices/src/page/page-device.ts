import type { Device } from '@brelvin/core';

/** What pages draw with, what is better first. */
export const PAGE_DEVICES = ['webgpu', 'webgl2'] as const;
export type PageDeviceName = (typeof PAGE_DEVICES)[number];

/** A device that is gone. */
export interface Loss {
  /** In the driver's words, where it gives any. */
  readonly reason: string;
  /** Comes when another may be opened on the same canvas. */
  readonly back: Promise<void>;
}

/** A device that draws on a canvas of the page. */
export interface PageDevice {
  readonly name: PageDeviceName;
  readonly device: Device;
  /** Comes when it is gone without having been closed. */
  readonly lost: Promise<Loss>;
  close(): void;
}

/**
 * Opens a device on a canvas that has had none, or the same kind before. What is not opened is not fetched either.
 *
 * @throws NoWebGpu, NoWebGl2 with what the browser lacks; the canvas is free for the other kind then
 */
export function openPageDevice(name: PageDeviceName, canvas: HTMLCanvasElement): Promise<PageDevice> {
  return name === 'webgpu' ? openWebGpu(canvas) : openWebGl2(canvas);
}

async function openWebGpu(canvas: HTMLCanvasElement): Promise<PageDevice> {
  const { WebGpuDevice } = await import('../webgpu/webgpu-device');
  const device = await WebGpuDevice.create(navigator.gpu, canvas);
  return {
    name: 'webgpu',
    device,
    lost: device.lost.then((reason) => ({ reason, back: Promise.resolve() })),
    close: () => device.destroy(),
  };
}

async function openWebGl2(canvas: HTMLCanvasElement): Promise<PageDevice> {
  const { WebGl2Device } = await import('../webgl2/webgl2-device');
  const device = WebGl2Device.create(canvas);
  const closed = new AbortController();
  const once = { once: true, signal: closed.signal };
  const lost = new Promise<Loss>((resolve) => {
    const onLost = (event: Event): void => {
      // Says that the context may come back.
      event.preventDefault();
      const back = new Promise<void>((comes) => canvas.addEventListener('webglcontextrestored', () => comes(), once));
      resolve({ reason: (event as WebGLContextEvent).statusMessage, back });
    };
    canvas.addEventListener('webglcontextlost', onLost, once);
  });
  return {
    name: 'webgl2',
    device,
    lost,
    close: () => {
      closed.abort();
      device.destroy();
    },
  };
}
