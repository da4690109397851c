import type { LightRig } from '@brelvin/contract';
import type { FrameGlobals } from '../../compile/material-values';
import type { Harmonics } from '../../image/environment/harmonics';
import type { Value } from '../../ir/value';
import { LEVELS } from './environment-levels';

/** The members of `Lights` that say what comes from all around; black where the rig's environment lights nothing. */
export function environmentGlobals(
  { environment }: Pick<LightRig, 'environment'>,
  harmonics: Harmonics | undefined = environment?.light,
): FrameGlobals {
  const strength = environment?.lights && harmonics ? environment.intensity : 0;
  const turn = environment?.turn ?? 0;
  const light = Array.from({ length: 9 }, (_, index) => [0, 1, 2].map((channel) => (harmonics?.[index]?.[channel] ?? 0) * strength));
  return new Map<string, Value>([
    ['environmentTurn', [Math.cos(turn), Math.sin(turn), strength, LEVELS - 1]],
    ['environmentLight', { items: light.map((colour) => [...colour, 0]) }],
  ]);
}
