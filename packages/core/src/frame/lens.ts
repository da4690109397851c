import type { FrameGlobals } from '../compile/material-values';
import type { MaterialPipelines } from './material-pipelines';

/** How the value of an outlet is shown. */
export const LENS_MODES = ['colour', 'scale', 'direction'] as const;
export type LensMode = (typeof LENS_MODES)[number];

/** One outlet, seen on what wears its material instead of the picture. */
export interface Lens {
  /** The program that gives outlets, in the place of the material's own. */
  readonly surface: MaterialPipelines;
  /** Its index there. */
  readonly outlet: number;
  readonly mode: LensMode;
  /** Values at both ends of the scale. */
  readonly low: number;
  readonly high: number;
  /** Which component is on the scale: 0…3, or 4 for the length. */
  readonly component: number;
}

/** Asks a program of outlets for the place itself instead of a value. */
export const PLACE = -1;

/** The members of the block `Peek`. Without a mode the value comes as it is. */
export function peekGlobals({
  outlet,
  mode,
  low = 0,
  high = 1,
  component = 0,
}: Pick<Lens, 'outlet'> & Partial<Omit<Lens, 'surface'>>): FrameGlobals {
  return new Map([
    ['peekOutlet', [outlet, mode ? LENS_MODES.indexOf(mode) + 1 : 0, 0, 0]],
    ['peekScale', [low, high, component, 0]],
  ]);
}
