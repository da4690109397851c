import { local } from '../ir/build';
import type { Declare, Expression, Global, IrFunction, Module } from '../ir/ir';
import { dropDead, fold, mapValues, shareCommon, substitute, type Line } from '../ir/passes';
import { fasterRate, RateAnalysis, type Rate } from '../ir/rate';
import { componentCount, sameType, VEC4, type Type } from '../ir/types';
import { walkExpression } from '../ir/walk';
import { mapSum, sumFunction, type LightSum } from './light-loops';
import type { LoweredStage, SharedLowering } from './lower';

/** A stage's line with all that does not differ between its points taken out; still reads slots as globals of their own. */
export interface AssembledLine {
  readonly line: Line;
  readonly results: readonly Expression[];
  readonly sums: readonly LightSum[];
  /** What is computed once per frame, on the CPU. */
  readonly frameLine: readonly Declare[];
  /** The library with what this graph adds to it. */
  readonly module: Module;
  /** How often each node is computed. */
  readonly rates: Readonly<Record<string, Rate>>;
}

/** Folds, shares and hoists what a stage computes. */
export function assembleLine(
  { line: raw, sums, results: wanted, perLight, locals }: LoweredStage,
  { slots, images, carried, library }: SharedLowering,
  stage: 'pixel' | 'vertex',
): AssembledLine {
  const context = { functions: library.functions };
  const shared = shareCommon(mapValues(raw, (value) => fold(value, context)));
  const results = wanted.map((result) => substitute(result, 'local', shared.replaced));
  const line = dropDead(shared.line, results);
  const declared = (name: string, global: Global): [string, Global] => [name, global];
  const module: Module = {
    ...library,
    globals: new Map([
      ...library.globals,
      ...slots.slots.map(({ name, type }) => declared(name, { name, type, storage: 'const' })),
      ...samplersOf(images),
      ...carried.map(({ global }) => declared(global.name, global)),
    ]),
    functions: new Map([...library.functions, ...sumFunctions(sums, library)]),
  };
  const localRates = lineRates(line, module);
  const rates: Record<string, Rate> = {};
  for (const [node, name] of locals) {
    const final = shared.replaced.get(name);
    const rate = localRates.get(final?.op === 'reference' ? final.name : name) ?? 'constant';
    // What a light does differs from point to point.
    const found = perLight.has(name) ? 'pixel' : rate;
    rates[node] = stage === 'vertex' && found === 'pixel' ? 'vertex' : found;
  }
  const hoisted = hoist(line, results, localRates, (each) => slots.allocate(each.type, { from: 'frame', name: each.name }));
  return { ...hoisted, sums, module, rates };
}

export function samplersOf(images: SharedLowering['images']): [string, Global][] {
  return images.map(({ sampler, cube }): [string, Global] => {
    const type: Type = { kind: 'sampler', name: cube ? 'samplerCube' : 'sampler2D' };
    return [sampler, { name: sampler, type, storage: 'sampler' }];
  });
}

export function sumFunctions(sums: readonly LightSum[], library: Module): [string, IrFunction][] {
  return sums.map((sum) => sumFunction(sum, library)).map((each) => [each.signature, each]);
}

/** The same with every slot read from the material's block. */
export function packedLine(
  { line, results, sums }: AssembledLine,
  reads: ReadonlyMap<string, Expression>,
): Pick<AssembledLine, 'line' | 'results' | 'sums'> {
  const pack = (expression: Expression): Expression => substitute(expression, 'global', reads);
  return { line: mapValues(line, pack), results: results.map(pack), sums: sums.map((sum) => mapSum(sum, pack)) };
}

const PER_PART = new Set(['Object']);

function lineRates(line: readonly Declare[], module: Module): ReadonlyMap<string, Rate> {
  const rates = new Map<string, Rate>();
  const analysis = new RateAnalysis(module, rates, PER_PART);
  for (const { name, value } of line) rates.set(name, value ? analysis.ofExpression(value) : 'constant');
  return rates;
}

/** Whether the block has places for values of a type: numbers, vectors, and the stops of a gradient. */
function fitsSlot(type: Type): boolean {
  return type.kind === 'array' ? sameType(type.element, VEC4) : componentCount(type) > 0 && type.kind !== 'matrix';
}

/**
 * Takes what does not differ between points out of the program: it is computed on the CPU, once per frame, and read
 * from a slot. Structs and what finds no room stay.
 */
function hoist(
  line: readonly Declare[],
  results: readonly Expression[],
  rates: ReadonlyMap<string, Rate>,
  allocate: (declared: Declare) => Expression | undefined,
): Pick<AssembledLine, 'line' | 'results' | 'frameLine'> {
  const slow = (name: string): boolean => fasterRate(rates.get(name) ?? 'pixel', 'frame') === 'frame';
  const fits = (declared: Declare): boolean => slow(declared.name) && fitsSlot(declared.type);
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
