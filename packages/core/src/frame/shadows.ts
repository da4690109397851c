import { plainFragmentModule, plainVertexModule } from '../compile/surface-programs';
import type { Device, DeviceBindGroup, DeviceTexture, DrawCall, PassFormats } from '../device/device';
import type { Module } from '../ir/ir';
import { blockLayout } from '../ir/layout';
import { SHADOW_SIDE, type ShadowView } from '../scene/shadow-views';
import { BoundBlock } from './bound-block';
import type { FrameItem } from './frame-item';
import { isSeenThrough } from './see-through';
import { ProgramPipelines, SHADOW_BIAS } from './program-pipelines';
import { writeBlock } from './uniforms';

const SQUARES = 4;
const VERTICES = (): Module => plainVertexModule('shadow.vert');

/** The state of what throws shadows: other objects or seconds stand differently. */
export interface StandingState {
  readonly shown: object;
  readonly seconds: number;
}

/** The shadow atlas: what each light that casts shadows sees, as depths. */
export class ShadowPasses {
  readonly atlas: DeviceTexture;
  private readonly casters: readonly BoundBlock[];
  private readonly pipelines: ProgramPipelines;
  private drawn?: { readonly standing: StandingState; readonly views: string };

  constructor(private readonly device: Device) {
    const caster = VERTICES().blocks.get('Caster');
    if (!caster) throw new RangeError('the shadow program has no block Caster');
    const layout = blockLayout(caster);
    this.pipelines = ProgramPipelines.own(device, 'shadow', VERTICES, () => plainFragmentModule('shadow.frag'), { depthBias: SHADOW_BIAS });
    this.atlas = device.createTexture({
      width: SHADOW_SIDE * 2,
      height: SHADOW_SIDE * 2,
      format: 'depth24plus',
      samples: 1,
      fetched: true,
    });
    this.casters = Array.from({ length: SQUARES }, () => new BoundBlock(device, layout));
  }

  /**
   * Draws what lights see.
   *
   * @param callsOf drawings by programs of their own, for what has a shape of its own
   * @param standing the present state of what casts; the atlas is kept while neither it nor a light changes
   */
  draw(views: readonly ShadowView[], items: readonly FrameItem[], callsOf: CasterCalls, standing?: StandingState): void {
    if (views.length === 0) return;
    const state = standing && { standing, views: views.map((view) => Array.from(view.clipFromWorld).join()).join(' ') };
    const { drawn } = this;
    this.drawn = state;
    const { shown, seconds } = drawn?.standing ?? {};
    if (state && state.views === drawn?.views && standing.shown === shown && standing.seconds === seconds) return;
    const casting = items.filter(({ part, surface }) => (part?.casts ?? true) && !isSeenThrough(surface));
    // A field is traced as a whole, whichever of its parts cast.
    const casters = casting.filter(({ field }, index) => !field || casting.findIndex((each) => each.field === field) === index);
    this.device.runPass({ label: 'shadows', depth: this.atlas, clear: [0, 0, 0, 0], draws: [] });
    views.forEach(({ clipFromWorld }, square) => {
      const caster = this.casters[square];
      if (!caster) return;
      writeBlock(caster.layout, new Map([['casterClip', [...clipFromWorld]]]), caster.words);
      caster.upload();
      const ownCall = callsOf(caster.group);
      this.device.runPass({
        label: 'shadows',
        depth: this.atlas,
        viewport: { x: (square % 2) * SHADOW_SIDE, y: Math.floor(square / 2) * SHADOW_SIDE, width: SHADOW_SIDE, height: SHADOW_SIDE },
        draws: casters.map((item) => (item.field || item.surface?.has('caster') ? ownCall(item) : this.plainCall(item, caster.group))),
      });
    });
  }

  private plainCall({ mesh, part }: FrameItem, caster: DeviceBindGroup): DrawCall {
    return {
      pipeline: this.pipelines.get({ into: SHADOW_FORMATS, cull: 'none', mirrored: false }),
      bindings: [undefined, undefined, undefined, caster],
      vertexBuffers: mesh.of({ copies: part?.instances }),
      indices: mesh.indices,
      first: part?.first ?? 0,
      count: part?.count ?? mesh.indexCount,
      instances: part?.instanceCount ?? 1,
    };
  }
}

/** Of a light's square of the atlas. */
export const SHADOW_FORMATS: PassFormats = { depth: true, samples: 1 };

/** Drawings of items under a light. @param caster the group of what changes from light to light */
export type CasterCalls = (caster: DeviceBindGroup) => (item: FrameItem) => DrawCall;
