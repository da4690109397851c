import type { LightRig } from '@brelvin/contract';
import type { Device, DeviceBuffer } from '../device/device';
import { MOST_LIGHTS } from '../document/light-rig';
import { buildMesh } from '../mesh/build-mesh';
import { standingLights } from '../scene/lights';
import type { FrameItem } from './frame-item';
import { INSTANCE_WORDS, MeshBuffers } from './mesh-buffers';

/** A ball of radius 1 metre, round enough for what is small in the picture. */
const BALL = { shape: 'sphere', numbers: { radius: 1, segments: 32, rings: 16 }, smooth: true } as const;

/** What is seen of lamps that have a body: balls that glow, cast no shadow and are no part of the set. */
export class LampBodies {
  private made?: { readonly mesh: MeshBuffers; readonly instances: DeviceBuffer };

  constructor(private readonly device: Device) {}

  /** All bodies of a rig at a time of the lights' clock, as copies of one ball; nothing where no lamp that shines has one. */
  item(rig: LightRig, lightSeconds: number): FrameItem | undefined {
    const rows = bodyRows(rig, lightSeconds);
    if (rows.length === 0) return undefined;
    const { mesh, instances } = (this.made ??= this.make());
    instances.write(rows);
    const instanceCount = rows.length / INSTANCE_WORDS;
    const { indexCount: count, object } = mesh;
    return { mesh, part: { first: 0, count, object, instances, instanceCount, cull: 'back', mirrored: false, casts: false } };
  }

  private make(): { readonly mesh: MeshBuffers; readonly instances: DeviceBuffer } {
    const mesh = new MeshBuffers(this.device, buildMesh(BALL));
    return { mesh, instances: this.device.createBuffer({ usage: 'vertex', size: MOST_LIGHTS * INSTANCE_WORDS * 4 }) };
  }
}

/** Rows of worldFromObject and the light's number, for each lamp with a body. */
export function bodyRows(rig: LightRig, lightSeconds: number): Float32Array<ArrayBuffer> {
  const rows = standingLights(rig, lightSeconds).flatMap(({ light, position: [x = 0, y = 0, z = 0] }, number) => {
    const radius = light.kind === 'sun' ? undefined : light.body;
    return radius === undefined ? [] : [radius, 0, 0, x, 0, radius, 0, y, 0, 0, radius, z, number];
  });
  return new Float32Array(rows);
}
