import { library as loadLibrary, type Library } from '../catalogue/library';
import type { MaterialSource, OpacityMode } from '../document/material';
import { emitGlsl, type GlslProgram } from '../emit/glsl/emit-glsl';
import { float } from '../ir/build';
import type { IrFunction, Module } from '../ir/ir';
import type { BlockLayout } from '../ir/layout';
import type { Rate } from '../ir/rate';
import { hashText } from './hash';
import { looksBehind, programBlocks, readsClock, SurfaceLinker, type FrameComputation } from './link-surface';
import { LitTerms, sumOfTerms } from './lit-terms';
import type { BakedInlet } from './lower';
import { resolveGraph, type GraphProblem } from './resolve';
import type { Slot } from './slots';
import { graphProblems, lowerStages } from './stages';
import type { SurfaceVariant } from './surface-programs';

/** A program ready for a device, with all that is needed to feed it. Plain data: it crosses from the worker. */
export interface CompiledMaterial {
  /** Equal for materials of equal structure, whatever their numbers. */
  readonly key: string;
  readonly glsl: GlslProgram;
  /** The same surface under shadows, and to be taken apart; only where they were asked for. */
  readonly variants: Readonly<Partial<Record<SurfaceVariant, GlslProgram>>>;
  readonly blocks: readonly BlockLayout[];
  readonly slots: readonly Slot[];
  readonly frame: FrameComputation;
  /** Whether it moves vertices. */
  readonly shaped: boolean;
  /** How it is seen through; nothing where it hides what is behind it. */
  readonly opacity?: OpacityMode;
  /** Whether it reads what was drawn before it. */
  readonly looksBehind: boolean;
  /** Whether the picture changes with the clock. */
  readonly moves: boolean;
  readonly baked: readonly BakedInlet[];
  /** Samplers of the program, each with the material's image it shows. */
  readonly images: readonly { readonly sampler: string; readonly image?: string }[];
}

export interface CompileResult {
  /** Absent when there are problems. */
  readonly compiled?: CompiledMaterial;
  readonly problems: readonly GraphProblem[];
  /** How often each node that reaches the dock is computed. */
  readonly rates: Readonly<Record<string, Rate>>;
}

export interface CompileOptions {
  /** Which programs are wanted besides the plain one. */
  readonly variants?: readonly SurfaceVariant[];
}

/** Compiles a material's graph to a program for every target. Same document, same result. */
export function compileMaterial(
  material: MaterialSource,
  library: Library = loadLibrary(),
  { variants = [] }: CompileOptions = {},
): CompileResult {
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
  const wanted = new Set([...variants, ...outlineVariants(material), ...(stages.shaped ? SHAPED : opacity === 'cut' ? HOLED : [])]);
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
      looksBehind: looksBehind(program),
      moves: readsClock(program, linker.frame),
      baked: linker.baked,
      images: linker.images,
    },
  };
}

/** What draws the mesh in other ways must move its vertices too. */
const SHAPED: readonly SurfaceVariant[] = ['caster', 'distance', 'edges', 'wires'];
/** Holes are also holes for light, and for what looks behind. */
const HOLED: readonly SurfaceVariant[] = ['caster', 'distance'];

const SURFACE_LIGHT = 'surfaceLight(Lit)';

/** Adds up the terms that a surface has. */
function addedTerms(paintSurface: IrFunction, functions: ReadonlyMap<string, IrFunction>, { structs }: Module): IrFunction {
  const [declared, lit] = [functions.get(SURFACE_LIGHT), structs.get('Lit')];
  if (!declared || !lit) throw new ReferenceError(`the shader library must define ${SURFACE_LIGHT}`);
  return sumOfTerms(declared, new LitTerms(lit, functions).of(paintSurface));
}

function outlineVariants({ outline }: Pick<MaterialSource, 'outline'>): SurfaceVariant[] {
  return outline ? [outline.method === 'hull' ? 'hull' : 'lines'] : [];
}
