import type { ProgramVariant } from '../compile/surface-programs';
import type { DeviceBindGroup, DeviceBuffer, DrawCall, PassFormats } from '../device/device';
import type { FrameItem } from './frame-item';
import type { PictureContext } from './picture-context';
import { ProgramPipelines, type PipelineState } from './program-pipelines';

/** Programs of a surface that are drawn like its plain one; a hull has a geometry of its own. */
export type PlainVariant = Exclude<ProgramVariant, 'hull'>;
/** By what an item is drawn: a program of its own surface, or one of the frame's. */
export type DrawnBy = PlainVariant | ProgramPipelines;

/** Puts the drawings of items together. */
export class ItemDrawings {
  /** @param notReady draws what has no surface yet */
  constructor(private readonly notReady: ProgramPipelines) {}

  /** @param by the plain program of its surface when absent */
  call(item: FrameItem, context: PictureContext, into: PassFormats, by?: DrawnBy): DrawCall {
    const { mesh, surface, material, part } = item;
    const own = surface && material && !(by instanceof ProgramPipelines) ? surface.pipelines(by) : undefined;
    const plain = by instanceof ProgramPipelines ? by : this.notReady;
    const pipelines = own ?? (item.field ? plain.onFields : plain);
    if (item.field) return this.fieldCall(item, context.bindings(pipelines.layout, item), pipelines, into);
    return {
      pipeline: pipelines.get(stateOf(item, into)),
      bindings: context.bindings(pipelines.layout, item),
      vertexBuffers: mesh.of({ ...(own && surface?.compiled), copies: part?.instances }),
      indices: mesh.indices,
      first: part?.first ?? 0,
      count: part?.count ?? mesh.indexCount,
      instances: part?.instanceCount ?? 1,
    };
  }

  /** A drawing over the far sides of a field's box, so that the eye may be inside of it. */
  fieldCall(
    { mesh, part }: FrameItem,
    bindings: readonly (DeviceBindGroup | undefined)[],
    pipelines: ProgramPipelines,
    into: PassFormats,
  ): DrawCall {
    return {
      pipeline: pipelines.get({ into, cull: 'front', mirrored: part?.mirrored ?? false }),
      bindings,
      vertexBuffers: mesh.of({ copies: part?.instances }),
      indices: mesh.indices,
      first: part?.first ?? 0,
      count: part?.count ?? mesh.indexCount,
      instances: part?.instanceCount ?? 1,
    };
  }

  /** A grown mesh: its far side, and of an open one also the rim of the near side. */
  hullCalls(item: FrameItem, context: PictureContext, into: PassFormats): DrawCall[] {
    const { mesh, surface, part } = item;
    // A field has no vertices that could be grown.
    if (!surface || item.field) return [];
    const { grown, rim } = mesh.hull;
    const pipelines = surface.pipelines('hull');
    const call = (ways: DeviceBuffer, cull: 'front' | 'back'): DrawCall => ({
      ...this.call(item, context, into),
      pipeline: pipelines.get({ ...stateOf(item, into), cull }),
      bindings: context.bindings(pipelines.layout, item),
      vertexBuffers: mesh.of({ ...surface.compiled, ways, copies: part?.instances }),
    });
    return [call(grown, 'front'), ...(rim ? [call(rim, 'back')] : [])];
  }
}

function stateOf({ mesh, part }: FrameItem, into: PassFormats): PipelineState {
  return { into, cull: part?.cull ?? (mesh.closed ? 'back' : 'none'), mirrored: part?.mirrored ?? false };
}
