import { library as loadLibrary, libraryProgram, type Library } from '../catalogue/library';
import type { MaterialSource } from '../document/material';
import { emitGlsl, type GlslProgram } from '../emit/glsl/emit-glsl';
import { local } from '../ir/build';
import type { Declare, Expression, Global, IrFunction, Module } from '../ir/ir';
import { blockLayout, type BlockLayout } from '../ir/layout';
import { dropDead, fold, mapValues, returning, shareCommon, substitute } from '../ir/passes';
import { linkProgram, type Program } from '../ir/program';
import { fasterRate, RateAnalysis, type Rate } from '../ir/rate';
import { componentCount, type Type } from '../ir/types';
import { walkBody, walkExpression } from '../ir/walk';
import { reachesDock } from './graph-order';
import { hashText } from './hash';
import { mapSum, sumFunction, type LightSum } from './light-loops';
import { LitTerms, sumOfTerms } from './lit-terms';
import { lowerGraph, type BakedInlet } from './lower';
import { resolveGraph, type GraphProblem, type ResolvedGraph } from './resolve';
import type { Slot } from './slots';

/** Programs of a surface besides the plain one: under shadows, taken apart, its outline grown, the colour of its lines. */
export type SurfaceVariant = 'shadowed' | 'inspect' | 'hull' | 'lines';

/** What the values of slots that are computed once per frame need. */
export interface FrameComputation {
  readonly line: readonly Declare[];
  readonly functions: ReadonlyMap<string, IrFunction>;
}

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

const CLOCK = 'frameTime';

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

  const reached = reachesDock(resolved.incoming);
  const lowered = lowerGraph(resolved, reached, material, library, library.module);
  if (lowered.images.length > MOST_IMAGES) return { problems: [tooManyImages(resolved, lowered.images)], rates: {} };
  const samplers = lowered.images.map(({ sampler }): [string, Global] => [sampler, { name: sampler, type: SAMPLER, storage: 'sampler' }]);
  const slotGlobals = (): [string, Global][] => lowered.slots.slots.map(({ name, type }) => [name, { name, type, storage: 'const' }]);
  const context = { functions: library.module.functions };
  const folded = mapValues(lowered.line, (value) => fold(value, context));
  const shared = shareCommon(folded);
  const results = [lowered.colour, lowered.emission, ...(lowered.outline ? [lowered.outline] : [])].map((result) =>
    substitute(result, 'local', shared.replaced),
  );
  const line = dropDead(shared.line, results);

  const sumFunctions = (sums: readonly LightSum[]): [string, IrFunction][] =>
    sums.map((sum) => sumFunction(sum, library.module)).map((each) => [each.signature, each]);
  const module: Module = {
    ...library.module,
    globals: new Map([...library.module.globals, ...slotGlobals(), ...samplers]),
    functions: new Map([...library.module.functions, ...sumFunctions(lowered.sums)]),
  };
  const localRates = lineRates(line, module);
  const rates: Record<string, Rate> = {};
  for (const [node, name] of lowered.locals) {
    const final = shared.replaced.get(name);
    // What a light does differs from point to point.
    rates[node] = lowered.perLight.has(name) ? 'pixel' : (localRates.get(final?.op === 'reference' ? final.name : name) ?? 'constant');
  }

  const hoisted = hoist(line, results, localRates, (declared) =>
    lowered.slots.allocate(declared.type, { from: 'frame', name: declared.name }),
  );
  const packed = lowered.slots.packedReads();
  const pack = (expression: Expression): Expression => substitute(expression, 'global', packed);
  const sums = sumFunctions(lowered.sums.map((sum) => mapSum(sum, pack)));
  const pixelLine = mapValues(hoisted.line, pack);
  const [colour, emission, outline] = hoisted.results.map(pack);
  if (!colour || !emission) throw new ReferenceError('a material has a colour and an emission');

  const block = lowered.slots.block();
  const blockGlobal = lowered.slots.blockGlobal();
  const painter = (name: string, result: Expression): IrFunction => ({
    signature: `${name}()`,
    name,
    parameters: [],
    result: result.type,
    body: returning(dropDead(pixelLine, [result]), result),
    origin: { path: 'graph' },
  });
  const painters = [painter('paintSurface', colour), painter('paintEmission', emission)];
  if (outline) painters.push(painter('paintOutline', outline));
  const added = addedTerms(painters[0], new Map([...module.functions, ...sums]), library.module);
  const link = (fragment: Module, vertex = surfaceVertex()): Program =>
    linkProgram(vertex, {
      ...fragment,
      globals: new Map([...fragment.globals, ...samplers, [blockGlobal.name, blockGlobal]]),
      blocks: new Map(fragment.blocks).set(block.name, block),
      functions: new Map([
        ...fragment.functions,
        ...sums,
        ...[...painters, added].map((each): [string, IrFunction] => [each.signature, each]),
      ]),
    });
  const program = link(surfaceFragment());
  const glsl = emitGlsl(program);
  return {
    problems: [],
    rates,
    compiled: {
      key: hashText(glsl.fragment.text),
      glsl,
      variants: Object.fromEntries(
        [...variants, ...outlineVariants(material)].map((variant) => [
          variant,
          emitGlsl(link(FRAGMENTS[variant](), VERTICES[variant]?.())),
        ]),
      ),
      blocks: programBlocks(program),
      slots: lowered.slots.slots,
      frame: { line: hoisted.frameLine, functions: reachedFunctions(hoisted.frameLine, module) },
      moves: readsClock(program, hoisted.frameLine, module),
      baked: lowered.baked,
      images: lowered.images,
    },
  };
}

/** 16 image units, the least a WebGL2 device has, less the system's five. */
export const MOST_IMAGES = 11;
const SAMPLER: Type = { kind: 'sampler', name: 'sampler2D' };

function tooManyImages(resolved: ResolvedGraph, images: readonly { readonly image?: string }[]): GraphProblem {
  const beyond = images[MOST_IMAGES]?.image;
  const node = [...resolved.nodes.values()].find((each) => each.node?.image === beyond)?.id ?? '';
  return { node, message: `A material may read ${MOST_IMAGES} different images; this is one too many. Pack channels into one image.` };
}

const SURFACE_LIGHT = 'surfaceLight(Lit)';

/** Adds up the terms that a surface has. */
function addedTerms(paintSurface: IrFunction | undefined, functions: ReadonlyMap<string, IrFunction>, { structs }: Module): IrFunction {
  const [declared, lit] = [functions.get(SURFACE_LIGHT), structs.get('Lit')];
  if (!declared || !lit || !paintSurface) throw new ReferenceError(`the shader library must define ${SURFACE_LIGHT}`);
  return sumOfTerms(declared, new LitTerms(lit, functions).of(paintSurface));
}

let vertex: Module | undefined;
let fragment: Module | undefined;

let shadowed: Module | undefined;
let inspecting: Module | undefined;
let outlining: Module | undefined;
let growing: Module | undefined;

const UNSHADED = [['shadowOf(int,vec3)', 'unshaded(int,vec3)']] as const;

/** Functions of lighting that the inspecting program has its own of. */
const INSPECTED = [
  ['seenBase(vec3)', 'inspectedBase(vec3)'],
  ['ambientHere(vec3)', 'inspectedAmbient(vec3)'],
  ['lightsInUse()', 'inspectedLights()'],
  ['seenShadow(float)', 'inspectedShadow(float)'],
] as const;

const FRAGMENTS: Readonly<Record<SurfaceVariant, () => Module>> = {
  shadowed: () => (shadowed ??= libraryProgram('surface.frag')),
  inspect: () => (inspecting ??= withOwn(libraryProgram('inspect.frag'), INSPECTED)),
  hull: () => (outlining ??= withOwn(libraryProgram('outline.frag'), UNSHADED)),
  lines: () => FRAGMENTS.hull(),
};

const VERTICES: Partial<Record<SurfaceVariant, () => Module>> = { hull: () => (growing ??= libraryProgram('outline.vert')) };

function outlineVariants({ outline }: Pick<MaterialSource, 'outline'>): SurfaceVariant[] {
  return outline ? [outline.method === 'hull' ? 'hull' : 'lines'] : [];
}

/** A program in which some functions of the library are put in the place of others. */
function withOwn(module: Module, exchanged: readonly (readonly [string, string])[]): Module {
  const functions = new Map(module.functions);
  for (const [plain, own] of exchanged) {
    const [taken, given] = [functions.get(plain), functions.get(own)];
    if (!taken || !given) throw new ReferenceError(`the shader library must define ${plain} and ${own}`);
    functions.set(plain, { ...given, name: taken.name, signature: taken.signature });
  }
  return { ...module, functions };
}

function surfaceVertex(): Module {
  return (vertex ??= libraryProgram('surface.vert'));
}

function surfaceFragment(): Module {
  return (fragment ??= withOwn(libraryProgram('surface.frag'), UNSHADED));
}

function lineRates(line: readonly Declare[], module: Module): ReadonlyMap<string, Rate> {
  const rates = new Map<string, Rate>();
  const analysis = new RateAnalysis(module, rates);
  for (const { name, value } of line) rates.set(name, value ? analysis.ofExpression(value) : 'constant');
  return rates;
}

/**
 * Takes what does not differ between pixels out of the program: it is computed on the CPU, once per frame, and
 * read from a slot. Structs and what finds no room stay.
 */
function hoist(
  line: readonly Declare[],
  results: readonly Expression[],
  rates: ReadonlyMap<string, Rate>,
  allocate: (declared: Declare) => Expression | undefined,
): { line: readonly Declare[]; results: readonly Expression[]; frameLine: readonly Declare[] } {
  const slow = (name: string): boolean => fasterRate(rates.get(name) ?? 'pixel', 'frame') === 'frame';
  const fits = (declared: Declare): boolean => slow(declared.name) && componentCount(declared.type) > 0 && declared.type.kind !== 'matrix';
  const wanted = new Set<string>();
  const want = (expression: Expression): void =>
    walkExpression(expression, (each) => {
      if (each.op === 'reference' && each.scope === 'local') wanted.add(each.name);
    });
  results.forEach(want);
  for (const declared of line) if (declared.value && !fits(declared)) want(declared.value);
  const replaced = new Map<string, Expression>();
  for (const declared of line) {
    const slot = fits(declared) && wanted.has(declared.name) ? allocate(declared) : undefined;
    if (slot) replaced.set(declared.name, slot);
  }
  const put = (expression: Expression): Expression => substitute(expression, 'local', replaced);
  const pixelResults = results.map(put);
  const kept = replaced.size === 0 ? line : line.filter((each) => !replaced.has(each.name));
  const pixelLine = dropDead(mapValues(kept, put), pixelResults);
  const hoisted = line.filter((each) => replaced.has(each.name)).map((each) => local(each.name, each.type));
  return {
    line: pixelLine,
    results: pixelResults,
    frameLine: dropDead(
      line.filter((each) => slow(each.name)),
      hoisted,
    ),
  };
}

function reachedFunctions(line: readonly Declare[], module: Module): ReadonlyMap<string, IrFunction> {
  const found = new Map<string, IrFunction>();
  const visit = (expression: Expression): void => {
    if (expression.op !== 'call' || found.has(expression.callee)) return;
    const callee = module.functions.get(expression.callee);
    if (!callee) return;
    found.set(callee.signature, callee);
    walkBody(callee.body, visit);
  };
  for (const { value } of line) if (value) walkExpression(value, visit);
  return found;
}

function programBlocks(program: Program): BlockLayout[] {
  const blocks = new Map([...program.vertex.blocks, ...program.fragment.blocks].map((block) => [block.name, block]));
  return [...blocks.values()].map(blockLayout);
}

function readsClock(program: Program, frameLine: readonly Declare[], module: Module): boolean {
  let reads = false;
  const visit = (expression: Expression): void => {
    if (expression.op === 'reference' && expression.name === CLOCK) reads = true;
  };
  for (const declared of [...program.fragment.functions, ...reachedFunctions(frameLine, module).values()]) walkBody(declared.body, visit);
  return reads;
}
