import type { FloorLook } from '@brelvin/contract';
import type { LiveValues } from '../compile/slots';
import type { DeviceBuffer } from '../device/device';
import type { MaterialSource } from '../document/material';
import type { OrbitCamera } from '../scene/camera';
import type { FieldPrograms } from './field-programs';
import type { MeshBuffers } from './mesh-buffers';
import type { MaterialPipelines } from './material-pipelines';
import type { PipelineState } from './program-pipelines';
import type { BoundBlock } from './bound-block';
import type { OwnValues } from './own-values';

/** How a part of a mesh is drawn. */
export interface PartDrawing {
  /** What it is called: its mesh, and itself where that has several. */
  readonly name?: string;
  /** Its range of the mesh's indices. */
  readonly first: number;
  readonly count: number;
  /** The block `Object`. */
  readonly object: BoundBlock;
  /** One element per copy, as `COPY_WORDS` says. */
  readonly instances: DeviceBuffer;
  readonly instanceCount: number;
  /** Parts with a higher number are drawn later. */
  readonly drawOrder?: number;
  /** Of its bounds at its first copy, world space, metres. */
  readonly middle?: readonly number[];
  /** The copies in the order in which they are laid over each other, as seen by a camera. */
  readonly instancesFarFirst?: (camera: OrbitCamera) => DeviceBuffer;
  /** A buffer with only one of the copies, of those there are. */
  readonly instanceAlone?: (copy: number) => DeviceBuffer;
  readonly cull: PipelineState['cull'];
  readonly mirrored: boolean;
  /** It is a floor, laid under all that stands on it. */
  readonly ground?: FloorLook;
  /** Whether it throws shadows; it does when absent. */
  readonly casts?: boolean;
  /** The surface's block of numbers for this part. */
  readonly values?: OwnValues;
  readonly live?: LiveValues;
}

/** A mesh, or a part of it, with what is painted on it; without a surface it is drawn as "not ready". */
export interface FrameItem {
  readonly mesh: MeshBuffers;
  readonly surface?: MaterialPipelines;
  readonly material?: MaterialSource;
  /** Of a part of a field: what traces it. Its mesh is the box in which it stands, its surface a program for fields. */
  readonly field?: FieldPrograms;
  /** Without it the whole mesh is drawn once, in place. */
  readonly part?: PartDrawing;
}
