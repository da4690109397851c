import type { LightRig } from '@brelvin/contract';
import type { DeviceTexture } from '../device/device';
import type { OrbitCamera } from '../scene/camera';
import type { Ball } from '../scene/shadow-views';
import type { EnvironmentNeed } from './environment/environment-passes';
import type { FrameItem } from './frame-item';
import { showsProperty, type Inspection } from './inspection';
import type { Lens } from './lens';
import type { StandingState } from './shadows';
import type { SampleCount } from './program-pipelines';
import type { Overview } from './overview';
import type { PicturePart } from './picture-part';
import type { StageClocks } from './uniforms';
import type { PictureSize } from './picture-part';

export interface Picture extends StageClocks {
  readonly items: readonly FrameItem[];
  readonly camera: OrbitCamera;
  readonly rig: LightRig;
  /** A ball round what throws shadows, and its present state; without one nothing does. */
  readonly casters?: { readonly ball: Ball; readonly standing?: StandingState };
  /** How it is taken apart; whole when absent. */
  readonly inspection?: Inspection;
  /** The value of an outlet instead of the picture. */
  readonly lens?: Lens;
}

export interface Drawing {
  /** Pixels to draw; the target may be larger, the picture is then stretched to it. */
  readonly size: PictureSize;
  readonly samples: SampleCount;
  readonly target: 'canvas' | DeviceTexture;
  readonly targetSize: PictureSize;
  /** The target in CSS pixels, for widths that are given in them; its own pixels when absent. */
  readonly cssSize?: PictureSize;
  /** Where it lies in a picture that is too large to be drawn at once, and what was found for the whole of that. */
  readonly part?: PicturePart & { readonly overview: Overview };
  /** sRGB when absent; linear for measurements. */
  readonly encoding?: 'linear';
  /** Where a rig has nothing behind the meshes: alpha of the target, or squares when absent. */
  readonly empty?: 'alpha';
}

/** What a picture needs of its environment besides light from all around. */
export function environmentNeed({ rig: { environment, transparent }, items }: Picture): EnvironmentNeed {
  const seen = environment?.shows === true && !transparent;
  const mirrored = environment?.lights === true && items.some(({ surface }) => surface?.compiled.mirrors);
  return { sharp: seen && environment.blur === 0, filtered: mirrored || (seen && environment.blur > 0) };
}

/** Whether what is seen is a property, or a value. */
export function isPlain({ inspection, lens }: Picture): boolean {
  return lens !== undefined || (inspection !== undefined && showsProperty(inspection));
}
