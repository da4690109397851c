import { libraryProgram } from '../catalogue/library';
import { groundModule, plainVertexModule } from '../compile/surface-programs';
import type { Device } from '../device/device';
import type { FrameItem } from './frame-item';
import { ownProgram } from './own-program';
import { ProgramPipelines } from './program-pipelines';

/** Programs that draw a floor in a way of its own: it ends softly, or only what it does not get is seen. */
export interface GroundPrograms {
  /** Nothing but shadow. */
  readonly shadow: ProgramPipelines;
  /** Takes away what was drawn, towards the floor's border. */
  readonly fade: ProgramPipelines;
}

export async function groundPrograms(device: Device): Promise<GroundPrograms> {
  const vertex = plainVertexModule('surface.vert');
  const program = (name: string, fragment: ReturnType<typeof libraryProgram>, ways = {}): Promise<ProgramPipelines> =>
    ProgramPipelines.create(device, name, ownProgram(device, vertex, fragment), ways);
  return {
    shadow: await program('ground_shadow', groundModule()),
    fade: await program('ground_fade', libraryProgram('ground_fade.frag'), { blend: 'keep', depth: 'none' }),
  };
}

/** Floors that are laid before what is behind them is drawn, and what stands there otherwise. */
export function groundOf(items: readonly FrameItem[]): { readonly ground: readonly FrameItem[]; readonly others: readonly FrameItem[] } {
  const isGround = ({ part }: FrameItem): boolean => part?.ground !== undefined && part.ground !== 'solid';
  return { ground: items.filter(isGround), others: items.filter((item) => !isGround(item)) };
}
