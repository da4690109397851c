import { libraryProgram } from '../catalogue/library';
import { groundModule, PLAIN_VERTICES } from '../compile/surface-programs';
import type { Device } from '../device/device';
import type { Module } from '../ir/ir';
import type { FrameItem } from './frame-item';
import { ProgramPipelines } from './program-pipelines';

/** Programs that draw a floor in a way of its own: it ends softly, or only what it does not get is seen. */
export interface GroundPrograms {
  /** Nothing but shadow. */
  readonly shadow: ProgramPipelines;
  /** Takes away what was drawn, towards the floor's border. */
  readonly fade: ProgramPipelines;
}

export function groundPrograms(device: Device): GroundPrograms {
  const fade = (): Module => libraryProgram('ground_fade.frag');
  return {
    shadow: ProgramPipelines.own(device, 'ground_shadow', PLAIN_VERTICES, groundModule),
    fade: ProgramPipelines.own(device, 'ground_fade', PLAIN_VERTICES, fade, { blend: 'keep', depth: 'none' }),
  };
}

/** Floors that are laid before what is behind them is drawn, and what stands there otherwise. */
export function groundOf(items: readonly FrameItem[]): { readonly ground: readonly FrameItem[]; readonly others: readonly FrameItem[] } {
  const isGround = ({ part }: FrameItem): boolean => part?.ground !== undefined && part.ground !== 'solid';
  return { ground: items.filter(isGround), others: items.filter((item) => !isGround(item)) };
}
