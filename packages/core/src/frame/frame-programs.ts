import { libraryProgram } from '../catalogue/library';
import { plainFragmentModule, plainVertexModule } from '../compile/surface-programs';
import type { Device } from '../device/device';
import { Backdrop } from './backdrop';
import { BloomPasses } from './bloom';
import { EdgePasses } from './edge-passes';
import { EnvironmentPasses } from './environment/environment-passes';
import { FullScreen } from './full-screen';
import { WeightedOit } from './weighted-oit';
import { groundPrograms, type GroundPrograms } from './ground';
import { NearOcclusionPasses } from './near-occlusion';
import { ownProgram } from './own-program';
import { ShadowPasses } from './shadows';
import { SmallerCopy } from './smaller-copy';
import { ProgramPipelines } from './program-pipelines';
import { ViewTransform } from './view-transform';
import { WireProgram } from './wires';

/** The frame's own programs, on a device. */
export interface FramePrograms {
  readonly view: ViewTransform;
  readonly backdrop: Backdrop;
  readonly bloom: BloomPasses;
  readonly environments: EnvironmentPasses;
  readonly gathering: WeightedOit;
  readonly wires: WireProgram;
  readonly shadows: ShadowPasses;
  readonly near: NearOcclusionPasses;
  readonly inverse: FullScreen;
  readonly ground: GroundPrograms;
  readonly edges: EdgePasses;
  readonly smaller: SmallerCopy;
  readonly notReady: ProgramPipelines;
  /** What stands beside something that is looked at. */
  readonly quiet: ProgramPipelines;
  /** How far away what is drawn first is. */
  readonly distance: ProgramPipelines;
}

export async function framePrograms(device: Device): Promise<FramePrograms> {
  const plain = (name: string, fragment = libraryProgram(`${name}.frag`)): Promise<ProgramPipelines> =>
    ProgramPipelines.create(device, name, ownProgram(device, plainVertexModule('surface.vert'), fragment));
  // All at once: a driver may compile several beside each other.
  const [view, backdrop, bloom, environments, gathering, wires, shadows, near, inverse, ground, edges, smaller, notReady, quiet, distance] =
    await Promise.all([
      ViewTransform.create(device),
      Backdrop.create(device),
      BloomPasses.create(device),
      EnvironmentPasses.create(device),
      WeightedOit.create(device),
      WireProgram.create(device),
      ShadowPasses.create(device),
      NearOcclusionPasses.create(device),
      FullScreen.create(device, 'scene_inverse', 'SceneInverse', 'gather'),
      groundPrograms(device),
      EdgePasses.create(device),
      SmallerCopy.create(device),
      plain('not_ready'),
      plain('quiet'),
      plain('scene_distance', plainFragmentModule('scene_distance.frag')),
    ]);
  return {
    view,
    backdrop,
    bloom,
    environments,
    gathering,
    wires,
    shadows,
    near,
    inverse,
    ground,
    edges,
    smaller,
    notReady,
    quiet,
    distance,
  };
}
