import { libraryProgram } from '../catalogue/library';
import { PLAIN_VERTICES, plainFragmentModule } from '../compile/surface-programs';
import type { Device } from '../device/device';
import type { Module } from '../ir/ir';
import { Backdrop } from './backdrop';
import { BloomPasses } from './bloom';
import { EdgePasses } from './edge-passes';
import { EnvironmentPasses } from './environment/environment-passes';
import { FullScreen } from './full-screen';
import { WeightedOit } from './weighted-oit';
import { groundPrograms, type GroundPrograms } from './ground';
import { NearOcclusionPasses } from './near-occlusion';
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
  /** The glowing balls of lamps. */
  readonly lampBody: ProgramPipelines;
  /** How far away what is drawn first is. */
  readonly distance: ProgramPipelines;
}

/** Each is written and compiled when it is first drawn. */
export function framePrograms(device: Device): FramePrograms {
  const plain = (name: string, fragment = (): Module => libraryProgram(`${name}.frag`)): ProgramPipelines =>
    ProgramPipelines.own(device, name, PLAIN_VERTICES, fragment);
  const down = new FullScreen(device, 'bloom_down', 'BloomDown', 'bloom');
  return {
    view: new ViewTransform(device),
    backdrop: new Backdrop(device),
    bloom: new BloomPasses(device, down),
    environments: new EnvironmentPasses(device),
    gathering: new WeightedOit(device),
    wires: new WireProgram(device),
    shadows: new ShadowPasses(device),
    near: new NearOcclusionPasses(device),
    inverse: new FullScreen(device, 'scene_inverse', 'SceneInverse', 'seen through', 'gather'),
    ground: groundPrograms(device),
    edges: new EdgePasses(device),
    smaller: new SmallerCopy(device, down),
    notReady: plain('not_ready'),
    quiet: plain('quiet'),
    lampBody: plain('lamp_body'),
    distance: plain('scene_distance', () => plainFragmentModule('scene_distance.frag')),
  };
}
