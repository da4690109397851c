import { library as loadLibrary, type Library } from '../catalogue/library';
import type { MaterialSource } from '../document/material';
import { emitGlsl } from '../emit/glsl/emit-glsl';
import { float } from '../ir/build';
import { compileCode } from './code/compile-code';
import type { CompileOptions, CompileResult } from './compiled-material';
import { hashText } from './hash';
import { programBlocks, readsClock, SurfaceLinker, systemReads } from './link-surface';
import { addedTerms, ownVariants } from './surface-terms';
import { resolveGraph } from './resolve';
import { graphProblems, lowerStages } from './stages';

/** Compiles a material's graph or code to a program for every target. Same document, same result. */
export function compileMaterial(
  material: MaterialSource,
  library: Library = loadLibrary(),
  { variants = [] }: CompileOptions = {},
): CompileResult {
  const { code } = material;
  if (code) return compileCode({ ...material, code }, library, { variants });
  const resolved = resolveGraph(material, library);
  if (resolved.problems.length > 0) return { problems: resolved.problems, rates: {} };
  const seenThrough = resolved.dock.some(({ spec, ribbon }) => spec.name === 'opacity' && ribbon);
  const opacity = seenThrough ? (material.opacity ?? 'blend') : undefined;
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
  const program = linker.link('plain', painters, opacity);
  const glsl = emitGlsl(program);
  const wanted = new Set([...variants, ...ownVariants(material, stages.shaped, opacity)]);
  return {
    problems: [],
    rates: linker.rates,
    compiled: {
      key: hashText(glsl.fragment.text + glsl.vertex.text),
      glsl,
      variants: Object.fromEntries([...wanted].map((variant) => [variant, emitGlsl(linker.link(variant, painters, opacity))])),
      blocks: programBlocks(program),
      slots: linker.slots,
      frame: linker.frame,
      shaped: stages.shaped,
      opacity,
      ...systemReads(program),
      moves: readsClock(program, linker.frame),
      baked: linker.baked,
      images: linker.images,
    },
  };
}
