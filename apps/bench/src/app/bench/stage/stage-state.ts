import type { FrameRenderer, ImageLack, PictureDifference, StageScene } from '@brelvin/core';
import type { DrawnBy } from './stage-device';
import type { Refusal } from './stage-surfaces';

/** What a picture may have to wait for. */
export type Awaited = 'program' | 'environment' | 'image' | 'mesh';

/** @param prepares whether a program is on its way */
export function awaitedBy(
  renderer: Pick<FrameRenderer, 'environments' | 'images' | 'meshes'> | undefined,
  prepares: boolean,
): readonly Awaited[] {
  const { images, meshes, environments } = renderer ?? {};
  const all: readonly [Awaited, boolean | undefined][] = [
    ['program', prepares],
    ['environment', environments?.awaits],
    ['image', images?.awaits],
    ['mesh', meshes?.awaits],
  ];
  return all.flatMap(([what, isAwaited]) => (isAwaited ? [what] : []));
}

/** What the Stage shows of itself. */
export interface StageState {
  readonly compiledPrograms: number;
  readonly pictures: number;
  /** The last picture was at full size and antialiased, and no newer one is wanted. */
  readonly sharp: boolean;
  /** Nothing that it shows is still on its way: program, image, environment or mesh. */
  readonly complete: boolean;
  /** What of it is on its way. */
  readonly awaits: readonly Awaited[];
  readonly hasSurface: boolean;
  /** What draws, once it is open. */
  readonly device?: DrawnBy;
  readonly lost: boolean;
  readonly moves: boolean;
  /** Whether any light of the rig has a motion. */
  readonly lightsMove: boolean;
  /** Whether any part wears the material on the Bench. */
  readonly benchIsWorn: boolean;
  /** Formulas of meshes that could not be read. */
  readonly formulas: StageScene['problems'];
  /** A mesh of a file is still on its way. */
  readonly awaitsMeshes: boolean;
  /** Images that could not be had: grey checks stand in their place. */
  readonly lacks: readonly ImageLack[];
  readonly refusal?: Refusal;
  /** Of two pictures: milliseconds that each took at rest, and how far they are apart. */
  readonly compared?: { readonly costs: readonly number[]; readonly difference?: PictureDifference };
  readonly unavailable?: string;
  /** How much of the environment is filtered, 0…1; absent before any was. */
  readonly filtering?: number;
  /** Milliseconds that a whole picture would take, where it is drawn small instead. */
  readonly tooSlow?: number;
  /** The part of the picture at rest that is brighter than white before any tone curve, in hundredths; absent before one rested. */
  readonly clipped?: number;
}

export const NO_PICTURE_YET: StageState = {
  compiledPrograms: 0,
  pictures: 0,
  sharp: false,
  complete: false,
  awaits: [],
  hasSurface: false,
  lost: false,
  moves: false,
  lightsMove: false,
  benchIsWorn: true,
  formulas: [],
  awaitsMeshes: false,
  lacks: [],
};
