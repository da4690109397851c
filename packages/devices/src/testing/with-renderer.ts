import { FrameRenderer, MaterialPipelines, type Device, type EmittedMaterial } from '@brelvin/core';
import { openDevice } from './open-device';

export interface OpenRenderer {
  readonly device: Device;
  readonly renderer: FrameRenderer;
}

/** Gives a suite a real device with a square canvas and a renderer on it, and ends both after it. */
export function withRenderer(side: number, use: (open: OpenRenderer) => void): void {
  let device: Device | undefined;

  beforeAll(async () => {
    device = await openDevice(side);
    use({ device, renderer: new FrameRenderer(device) });
  });

  afterAll(() => device?.destroy());
}

/** A material's programs on a device, without the drawing that warms them up: specs draw them once, in a way of their own. */
export function bring(device: Device, compiled: EmittedMaterial): Promise<MaterialPipelines> {
  return MaterialPipelines.create(device, compiled);
}
