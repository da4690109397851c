import type { LightRig, Material } from '@brelvin/contract';
import {
  buildMesh,
  compileFor,
  EMPTY_GRAPH,
  FrameRenderer,
  newLight,
  newMaterial,
  newRig,
  START_CAMERA,
  type Picture,
  type Device,
} from '@brelvin/core';
import { bring } from './testing/with-renderer';
import { openDevice } from './testing/open-device';

const [LARGE, SMALL] = [
  { width: 256, height: 192 },
  { width: 16, height: 12 },
];

describe('The picture drawn last, measured', () => {
  let device: Device;
  let renderer: FrameRenderer;

  beforeAll(async () => {
    device = await openDevice(LARGE.width);
    renderer = new FrameRenderer(device);
  });
  afterAll(() => device.destroy());

  /** A plane wider than the picture that gives off one colour. */
  async function glowing(colour: readonly number[], exposure: number): Promise<Picture> {
    const plain = newMaterial('m');
    const nodes = { c: { kind: 'colour', rev: 1, x: 0, y: 0, values: { value: colour } } };
    const material: Material = {
      ...plain,
      surface: { ...EMPTY_GRAPH, nodes, ribbons: { 'dock.colour': { from: 'c', outlet: 'result' } } },
    };
    const rig: LightRig = { ...newRig('r'), sun: newLight('sun', { intensity: 0 }), exposure, curve: 'aces' };
    const mesh = renderer.uploadMesh(buildMesh({ shape: 'plane', numbers: { width: 40, height: 40 }, smooth: true }));
    const camera = { ...START_CAMERA, azimuth: 0, elevation: 0 };
    const { compiled } = compileFor(device.target, material);
    const surface = await bring(device, compiled!);
    return { items: [{ mesh, surface, material }], camera, rig, seconds: 0 };
  }

  it('is its light at its exposure, before its tone curve, for one small pass and no second drawing', async () => {
    for (const exposure of [0, 2, -3]) {
      const picture = await glowing([2, 0.5, 0.25], exposure);
      renderer.draw(picture, { size: LARGE, samples: 4, target: 'canvas', targetSize: LARGE });
      const before = device.statistics.passes;
      const pixels = await renderer.measureLast(SMALL, picture.rig);
      expect(device.statistics.passes - before).toBe(1);
      expect(pixels.length).toBe(SMALL.width * SMALL.height * 4);
      const middle = [...pixels.slice((6 * 16 + 8) * 4, (6 * 16 + 8) * 4 + 3)];
      [2, 0.5, 0.25].forEach((light, channel) => expect(middle[channel]! / (light * 2 ** exposure)).toBeCloseTo(1, 2));
    }
  });
});
