import type { Material } from '@brelvin/contract';
import {
  applyChanges,
  buildMesh,
  compileFor,
  type Device,
  type FrameRenderer,
  library,
  materialCost,
  newLight,
  newMaterial,
  newRig,
  START_CAMERA,
} from '@brelvin/core';
import { bring, withRenderer } from './testing/with-renderer';

const SIDE = 128;
const size = { width: SIDE, height: SIDE };

describe('What is carried from the vertices because it changes evenly', () => {
  let device: Device;
  let renderer: FrameRenderer;

  withRenderer(SIDE, (open) => ({ device, renderer } = open));

  const rig = { ...newRig('plain'), sun: newLight('sun', { on: false }) };

  /** Rings under a place that is turned and repeated. */
  const turned = (): Material => {
    const plain = newMaterial('turned');
    const node = (kind: string, values: Record<string, number | number[]> = {}) => ({ kind, rev: 1, x: 0, y: 0, values });
    const nodes = { turn: node('uvTransform', { turn: 0.3, repeat: [3, 2], offset: [0.1, 0.2] }), dots: node('dots') };
    const ribbons = { 'dots.uv': { from: 'turn', outlet: 'uv' }, 'dock.colour': { from: 'dots', outlet: 'result' } };
    return { ...plain, surface: { ...plain.surface, nodes, ribbons } };
  };

  async function draw(material: Material): Promise<Uint8Array> {
    const { compiled, problems } = compileFor(device.target, material);
    expect(problems).toEqual([]);
    const surface = await bring(device, compiled!);
    const mesh = renderer.uploadMesh(buildMesh({ shape: 'torusKnot', numbers: {}, smooth: true }));
    const target = device.createTexture({ ...size, format: 'rgba8unorm', samples: 1 });
    renderer.draw(
      { items: [{ mesh, surface, material }], camera: START_CAMERA, rig, seconds: 0 },
      { size, samples: 4, target, targetSize: size },
    );
    const pixels = await device.readPixels(target);
    target.destroy();
    return pixels;
  }

  it('gives the same picture', async () => {
    const before = turned();
    const cost = materialCost(before, library(), { lights: 1, lit: 'plain', newId: () => 'carried' });
    const mend = 'movable' in cost ? cost.movable[0]?.mend : undefined;
    expect(mend).toBeDefined();
    const [first, second] = [await draw(before), await draw(applyChanges(before, mend!.changes))];
    expect(new Set(first).size).toBeGreaterThan(20);
    const apart = first.map((each, index) => Math.abs(each - (second[index] ?? 0)));
    expect(Math.max(...apart)).toBeLessThanOrEqual(1);
  });
});
