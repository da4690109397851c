import { programKey } from '../ir/program-key';
import type { Program } from '../ir/program';
import type { CompiledMaterial } from './compiled-material';
import { programBlocks, readsClock, systemReads } from './link-surface';
import type { SurfaceProgram, SurfaceVariant } from './surface-programs';

/** What a material's programs are linked from, and what feeds them. */
export interface SurfaceParts extends Pick<CompiledMaterial, 'slots' | 'frame' | 'shaped' | 'opacity' | 'baked' | 'images'> {
  readonly link: (program: SurfaceProgram) => Program;
}

/**
 * Links a material's programs, and puts them together with all that is needed to feed them.
 *
 * @param main the program that draws what is seen
 */
export function assembleMaterial(
  main: SurfaceProgram,
  variants: Iterable<SurfaceVariant>,
  { link, ...fed }: SurfaceParts,
): CompiledMaterial {
  const program = link(main);
  return {
    key: programKey(program),
    program,
    variants: Object.fromEntries([...variants].map((variant) => [variant, link(variant)])),
    blocks: programBlocks(program),
    ...systemReads(program),
    moves: readsClock(program, fed.frame),
    ...fed,
  };
}
