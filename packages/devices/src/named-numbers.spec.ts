import type { Material } from '@brelvin/contract';
import {
  buildMesh,
  compileFor,
  compileToRead,
  DEMO_DOCUMENTS,
  demoLibrary,
  drawnPixels,
  newRig,
  START_CAMERA,
  THUMBNAIL,
  THUMBNAIL_SIZE,
  type Device,
  type EmittedMaterial,
  type FrameRenderer,
} from '@brelvin/core';
import { bring, withRenderer } from './testing/with-renderer';

/** Programs as people read them draw what those do that devices are given otherwise. */
describe('Programs with the names of their numbers', () => {
  let device: Device;
  let renderer: FrameRenderer;

  withRenderer(THUMBNAIL_SIZE, (open) => ({ device, renderer } = open));

  async function drawn(material: Material, compiled: EmittedMaterial | undefined): Promise<Uint8Array> {
    if (!compiled) throw new Error('does not compile');
    const mesh = renderer.uploadMesh(buildMesh({ shape: 'sphere', numbers: {}, smooth: true }));
    const surface = await bring(device, compiled);
    const items = [{ mesh, surface, material }];
    return drawnPixels(device, renderer, { items, camera: START_CAMERA, rig: newRig('light'), seconds: 0 }, THUMBNAIL);
  }

  for (const id of ['material-kite-dusk', 'material-puppet-cheek'])
    it(`give the same picture: ${id}`, async () => {
      const material = DEMO_DOCUMENTS.find((each) => each.id === id)?.document as Material;
      const read = compileToRead(device.target, material, demoLibrary()).compiled;
      expect(read?.program.fragment.text).not.toContain('materialValues');
      const [plain, named] = [
        await drawn(material, compileFor(device.target, material, demoLibrary()).compiled),
        await drawn(material, read),
      ];
      expect(named).toEqual(plain);
      expect(new Set(plain).size).toBeGreaterThan(20);
    });
});
