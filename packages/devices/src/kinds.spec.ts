import type { GraphNode, Material, Ribbon } from '@brelvin/contract';
import {
  buildMesh,
  compileFor,
  type Device,
  type FrameRenderer,
  library,
  newMaterial,
  newRig,
  START_CAMERA,
  THIS_LIGHT_KIND,
} from '@brelvin/core';
import { bring, withRenderer } from './testing/with-renderer';

const SIDE = 48;
const size = { width: SIDE, height: SIDE };
/** Kinds in one program: few enough to name a fault, many enough to be quick. */
const PACK = 10;

/** Every kind of node goes through a real driver, and gives a number at every pixel. */
describe('Kinds on a device', () => {
  let device: Device;
  let renderer: FrameRenderer;

  withRenderer(SIDE, (open) => ({ device, renderer } = open));

  const kinds = [...library().kinds.values()].filter(({ id, overloads }) => overloads.length > 0 && id !== THIS_LIGHT_KIND);
  const packs = Array.from({ length: Math.ceil(kinds.length / PACK) }, (_, index) => kinds.slice(index * PACK, (index + 1) * PACK));

  /** Awkward numbers for all open inlets. Huge ones are tested function by function: sums of them are beyond half floats. */
  const AWKWARD = [0, -3, NaN];

  /** All outlets of these kinds, added up; as they begin, or with a number in each inlet that takes one. */
  function summed(pack: typeof kinds, number?: number): Material {
    const nodes: Record<string, GraphNode> = {};
    const ribbons: Record<string, Ribbon> = {};
    const node = (kind: string): GraphNode => ({ kind, rev: 1, x: 0, y: 0, values: {} });
    let before: string | undefined;
    for (const kind of pack) {
      const open = kind.inlets.filter((inlet) => 'value' in inlet.default && !['stops', 'image', 'light'].includes(inlet.meaning));
      const values = Object.fromEntries(number === undefined ? [] : open.map(({ name }) => [name, number]));
      nodes[kind.id] = { ...node(kind.id), values };
      for (const { name, meaning } of kind.outlets) {
        const sum = `sum${Object.keys(nodes).length}`;
        nodes[sum] = node('add');
        ribbons[`${sum}.b`] = { from: kind.id, outlet: name };
        if (meaning === 'stops') {
          // A gradient is no number: it is read at a place.
          nodes[`${sum}Read`] = node('gradient');
          ribbons[`${sum}Read.stops`] = { from: kind.id, outlet: name };
          ribbons[`${sum}.b`] = { from: `${sum}Read`, outlet: 'result' };
        }
        if (before) ribbons[`${sum}.a`] = { from: before, outlet: 'result' };
        before = sum;
      }
    }
    if (before) ribbons['dock.colour'] = { from: before, outlet: 'result' };
    const plain = newMaterial('all');
    return { ...plain, surface: { ...plain.surface, nodes, ribbons } };
  }

  for (const pack of packs) {
    it(`${pack.map((kind) => kind.id).join(', ')}`, async () => {
      const material = summed(pack);
      const { compiled, problems } = compileFor(device.target, material);
      expect(problems).toEqual([]);
      const rig = newRig('r');
      const mesh = renderer.uploadMesh(buildMesh({ shape: 'sphere', numbers: {}, smooth: true }));
      const surface = await bring(device, compiled!);
      for (const number of [undefined, ...AWKWARD]) {
        const item = { mesh, surface, material: number === undefined ? material : summed(pack, number) };
        const pixels = await renderer.measure({ items: [item], camera: START_CAMERA, rig, seconds: 0 }, size);
        expect(pixels.every(Number.isFinite))
          .withContext(`with ${number ?? 'defaults'} everywhere`)
          .toBeTrue();
      }
      surface.destroy();
      mesh.destroy();
    }, 60_000);
  }
});
