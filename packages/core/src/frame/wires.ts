import { libraryProgram } from '../catalogue/library';
import { plainVertexModule } from '../compile/surface-programs';
import type { Device, DrawCall, PassFormats } from '../device/device';
import type { Module } from '../ir/ir';
import type { FrameItem } from './frame-item';
import type { ItemDrawings } from './item-drawings';
import type { PictureContext } from './picture-context';
import { ProgramPipelines } from './program-pipelines';

/** The edges of meshes as lines. */
export class WireProgram {
  private readonly pipelines: ProgramPipelines;

  constructor(device: Device) {
    const vertices = (): Module => plainVertexModule('wires.vert');
    this.pipelines = ProgramPipelines.own(device, 'wires', vertices, () => libraryProgram('wires.frag'), { topology: 'lines' });
  }

  drawCall(item: FrameItem, drawings: ItemDrawings, context: PictureContext, into: PassFormats): DrawCall {
    const { mesh, part, surface } = item;
    return {
      ...drawings.call(item, context, into, surface?.compiled.shaped ? 'wires' : this.pipelines),
      indices: mesh.wires,
      first: (part?.first ?? 0) * 2,
      count: (part?.count ?? mesh.indexCount) * 2,
    };
  }
}
