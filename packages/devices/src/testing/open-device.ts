import type { Device } from '@brelvin/core';
import { WebGl2Device } from '../webgl2/webgl2-device';

type OpenDevice = (side: number) => Promise<Device>;

let open: OpenDevice = async (side) => WebGl2Device.create(new OffscreenCanvas(side, side));

/** A device for a spec, with a square canvas where there is one: WebGL2 in a page, WebGPU in Node. */
export function openDevice(side: number): Promise<Device> {
  return open(side);
}

/** Has specs run on another device. */
export function openDevicesBy(other: OpenDevice): void {
  open = other;
}
