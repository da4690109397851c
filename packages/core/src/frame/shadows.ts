import { plainFragmentModule, plainVertexModule } from '../compile/surface-programs';
import type { Device, DevicePipeline, DeviceTexture, DrawCall } from '../device/device';
import { blockLayout, type BlockLayout } from '../ir/layout';
import { SHADOW_SIDE, type ShadowView } from '../scene/shadow-views';
import type { FrameItem } from './frame-item';
import { SURFACE_VERTEX_BUFFERS } from './mesh-buffers';
import { ownProgram } from './own-program';
import { isSeenThrough } from './see-through';
import { SHADOW_BIAS } from './surface-pipelines';
import { UniformBuffer } from './uniform-buffer';
import { writeBlock } from './uniforms';

const SQUARES = 4;

/** The state of what throws shadows: other objects or seconds stand differently. */
export interface StandingState {
  readonly shown: object;
  readonly seconds: number;
}

/** The shadow atlas: what each light that casts shadows sees, as depths. */
export class ShadowPasses {
  readonly atlas: DeviceTexture;
  private readonly casters: readonly UniformBuffer[];
  private drawn?: { readonly standing: StandingState; readonly views: string };

  private constructor(
    private readonly device: Device,
    private readonly pipeline: DevicePipeline,
    private readonly layout: BlockLayout,
  ) {
    this.atlas = device.createTexture({
      width: SHADOW_SIDE * 2,
      height: SHADOW_SIDE * 2,
      format: 'depth24plus',
      samples: 1,
      fetched: true,
    });
    this.casters = Array.from({ length: SQUARES }, () => new UniformBuffer(device, layout.words));
  }

  static async create(device: Device): Promise<ShadowPasses> {
    const vertex = plainVertexModule('shadow.vert');
    const caster = vertex.blocks.get('Caster');
    if (!caster) throw new RangeError('the shadow program has no block Caster');
    const pipeline = await device.createPipeline({
      label: 'shadow',
      code: ownProgram(device, vertex, plainFragmentModule('shadow.frag')),
      vertexBuffers: SURFACE_VERTEX_BUFFERS,
      depth: 'test and write',
      cull: 'none',
      samples: 1,
      depthBias: SHADOW_BIAS,
    });
    return new ShadowPasses(device, pipeline, blockLayout(caster));
  }

  /**
   * Draws what lights see.
   *
   * @param drawCall an item's drawing by a program of its own, for what has a shape of its own
   * @param standing the present state of what casts; the atlas is kept while neither it nor a light changes
   */
  draw(views: readonly ShadowView[], items: readonly FrameItem[], drawCall: CasterCall, standing?: StandingState): void {
    if (views.length === 0) return;
    const state = standing && { standing, views: views.map((view) => Array.from(view.clipFromWorld).join()).join(' ') };
    const { drawn } = this;
    this.drawn = state;
    const { shown, seconds } = drawn?.standing ?? {};
    if (state && state.views === drawn?.views && standing.shown === shown && standing.seconds === seconds) return;
    const casters = items.filter(({ part, surface }) => (part?.casts ?? true) && !isSeenThrough(surface));
    this.device.runPass({ depth: this.atlas, clear: [0, 0, 0, 0], draws: [] });
    views.forEach(({ clipFromWorld }, square) => {
      const buffer = this.casters[square];
      if (!buffer) return;
      writeBlock(this.layout, new Map([['casterClip', [...clipFromWorld]]]), buffer.words);
      buffer.upload();
      this.device.runPass({
        depth: this.atlas,
        viewport: { x: (square % 2) * SHADOW_SIDE, y: Math.floor(square / 2) * SHADOW_SIDE, width: SHADOW_SIDE, height: SHADOW_SIDE },
        draws: casters.map((item) => this.casterCall(item, buffer, drawCall)),
      });
    });
  }

  private casterCall(item: FrameItem, { buffer }: UniformBuffer, drawCall: CasterCall): DrawCall {
    const bindings = { blocks: { Caster: buffer }, textures: {} };
    if (item.surface?.has('caster')) {
      const own = drawCall(item, 'caster');
      return { ...own, bindings: [...own.bindings, bindings] };
    }
    const { mesh, part } = item;
    return {
      pipeline: this.pipeline,
      bindings: [bindings],
      vertexBuffers: mesh.of({ copies: part?.copies }),
      indices: mesh.indices,
      first: part?.first ?? 0,
      count: part?.count ?? mesh.indexCount,
      copies: part?.copyCount ?? 1,
    };
  }
}

type CasterCall = (item: FrameItem, program: 'caster') => DrawCall;
