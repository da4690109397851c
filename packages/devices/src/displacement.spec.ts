import type { GraphNode, Material } from '@brelvin/contract';
import {
  compileFor,
  newLight,
  newMaterial,
  newRig,
  newSet,
  StageScene,
  START_CAMERA,
  type FrameRenderer,
  type Device,
} from '@brelvin/core';
import { bring, withRenderer } from './testing/with-renderer';

const SIDE = 160;
const size = { width: SIDE, height: SIDE };

describe('A cube whose sides are moved by a picture', () => {
  let device: Device;
  let renderer: FrameRenderer;

  withRenderer(SIDE, (open) => ({ device, renderer } = open));

  /** Glows white; the height runs across each side, so that two sides read other heights where they meet. */
  function moved(scale: number): Material {
    const node = (kind: string, values: GraphNode['values'] = {}): GraphNode => ({ kind, rev: 1, x: 0, y: 0, values });
    const { surface } = newMaterial('m');
    return {
      ...newMaterial('m'),
      surface: {
        ...surface,
        nodes: {
          uv: node('uv'),
          part: node('split'),
          shape: node('displaceByHeight', { scale, middle: 0.5 }),
          white: node('colour', { value: [1, 1, 1] }),
        },
        ribbons: {
          'part.value': { from: 'uv', outlet: 'result' },
          'shape.height': { from: 'part', outlet: 'x' },
          'dock.offset': { from: 'shape', outlet: 'result' },
          'dock.emission': { from: 'white', outlet: 'result' },
        },
      },
    };
  }

  it('stays shut along its edges', async () => {
    const rig = { ...newRig('r'), sun: newLight('sun', { on: false }), ambient: newLight('ambient', { on: false }), background: [1, 0, 0] };
    const material = moved(0.3);
    const { compiled, problems } = compileFor(device.target, material);
    expect(problems).toEqual([]);
    const stage = new StageScene(device, renderer);
    stage.setBench('m');
    stage.show(newSet('s', 'cube', { size: 1.5, segments: 24 }));
    const camera = { ...START_CAMERA, azimuth: 0.7, elevation: 0.5 };
    const surface = await bring(device, compiled!);
    stage.assign('m', { material, surface });
    const pixels = await renderer.measure({ items: stage.items(0), camera, rig, seconds: 0 }, size);
    stage.destroy();
    const covered = Array.from({ length: SIDE * SIDE }, (_, at) => (pixels[at * 4 + 1] ?? 0) > 0.5);
    expect(covered.filter(Boolean).length).toBeGreaterThan(0.15 * SIDE * SIDE);
    expect(holes(covered)).toBe(0);
  });

  /** Pixels not covered that no way round leads to from the edge of the picture. */
  function holes(covered: readonly boolean[]): number {
    const outside = new Set([0]);
    for (const at of outside) {
      const [x, y] = [at % SIDE, Math.floor(at / SIDE)];
      const beside = [x > 0 && at - 1, x < SIDE - 1 && at + 1, y > 0 && at - SIDE, y < SIDE - 1 && at + SIDE];
      for (const next of beside) if (next !== false && !covered[next]) outside.add(next);
    }
    return covered.filter((each, at) => !each && !outside.has(at)).length;
  }
});
