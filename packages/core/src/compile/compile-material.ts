import { library as loadLibrary, type Library } from '../catalogue/library';
import type { MaterialSource } from '../document/material';
import { float } from '../ir/build';
import type { Program } from '../ir/program';
import { assembleMaterial } from './assemble-material';
import { compileCode } from './code/compile-code';
import type { CompileOptions, CompileResult } from './compiled-material';
import { SurfaceLinker } from './link-surface';
import type { SurfaceProgram } from './surface-programs';
import { addedTerms, ownVariants } from './surface-terms';
import { resolveGraph } from './resolve';
import { graphProblems, lowerStages } from './stages';

/** Compiles a material's graph or code to linked programs, for every target. Same document, same result. */
export function compileMaterial(
  material: MaterialSource,
  library: Library = loadLibrary(),
  { variants = [], wornBy = 'mesh' }: CompileOptions = {},
): CompileResult {
  const { code } = material;
  if (code) return compileCode({ ...material, code }, library, { variants, wornBy });
  const resolved = resolveGraph(material, library);
  if (resolved.problems.length > 0) return { problems: resolved.problems, rates: {} };
  const seenThrough = resolved.dock.some(({ spec, ribbon }) => spec.name === 'opacity' && ribbon);
  const opacity = seenThrough && wornBy === 'mesh' ? (material.opacity ?? 'blend') : undefined;
  const stages = lowerStages(resolved, material, library, [
    'colour',
    'emission',
    ...(opacity ? ['opacity'] : []),
    ...(material.outline ? ['outline'] : []),
  ]);
  const problems = graphProblems(resolved, stages.shared);
  if (problems.length > 0) return { problems, rates: {} };
  const linker = new SurfaceLinker(stages.shared, stages.pixel, stages.vertex, stages.shaped);
  const [colour, emission, ...more] = linker.pixel.results;
  const cover = opacity ? more.shift() : undefined;
  const [outline] = more;
  if (!colour || !emission) throw new ReferenceError('a material has a colour and an emission');
  const paintSurface = linker.painter('paintSurface', colour);
  const painters = [paintSurface, linker.painter('paintEmission', emission), linker.painter('paintOpacity', cover ?? float(1))];
  if (outline) painters.push(linker.painter('paintOutline', outline));
  painters.push(addedTerms(paintSurface, linker.functions, library.module));
  const { slots, frame, baked, images, rates } = linker;
  const shaped = stages.shaped && wornBy === 'mesh';
  const wanted = new Set([...variants, ...ownVariants(material, { shaped, opacity, wornBy })]);
  const link = (program: SurfaceProgram): Program =>
    wornBy === 'field' ? linker.linkRecorded(program, painters) : linker.link(program, painters, opacity);
  return { problems: [], rates, compiled: assembleMaterial('plain', wanted, { link, slots, frame, shaped, opacity, baked, images }) };
}
