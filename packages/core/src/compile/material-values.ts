import type { LiveInput } from '@brelvin/contract';
import type { MaterialSource } from '../document/material';
import { evaluate } from '../ir/evaluate';
import { components, isArrayValue, type Value } from '../ir/value';
import type { CompiledMaterial } from './compiled-material';
import { AT_REST, documentNumbers, type LiveValues } from './slots';

/** Values of the blocks `Frame` and `Lights` by member: what changes without the document. */
export type FrameGlobals = ReadonlyMap<string, Value>;

/** Writes the material's uniform block: numbers from the document, and what is computed once per frame. */
export function writeMaterialValues(
  compiled: Pick<CompiledMaterial, 'slots' | 'frame'>,
  material: MaterialSource,
  frame: FrameGlobals,
  words: Float32Array,
  live: LiveValues = AT_REST,
): void {
  const globals = new Map(frame);
  for (const { name, type, offset, source } of compiled.slots) {
    const numbers = documentNumbers(source, type, material, live)?.map(held);
    if (!numbers) continue;
    words.set(numbers, offset);
    globals.set(name, type.kind === 'array' ? { items: chunks(numbers, 4) } : numbers);
  }
  const locals = new Map<string, Value>();
  const context = { functions: compiled.frame.functions, globals };
  for (const { name, value } of compiled.frame.line) if (value) locals.set(name, evaluate(value, context, locals));
  for (const { offset, source } of compiled.slots) {
    const value = source.from === 'frame' ? locals.get(source.name) : undefined;
    if (value) words.set(flatNumbers(value), offset);
  }
}

function flatNumbers(value: Value): readonly number[] {
  return isArrayValue(value) ? value.items.flatMap(flatNumbers) : components(value);
}

/** The largest number that programs are given: its square is still a number. */
const LARGEST = 1e18;

/** A number as programs can bear it: none is 0, and none is beyond all others. */
function held(value: number): number {
  return Number.isNaN(value) ? 0 : Math.min(Math.max(value, -LARGEST), LARGEST);
}

/** Whether the clock moves a picture of the material: its program reads it, or a live input that is read does. */
export function followsClock(
  compiled: Pick<CompiledMaterial, 'moves' | 'slots'>,
  { parameters }: Pick<MaterialSource, 'parameters'>,
): boolean {
  return compiled.moves || livesOn(compiled, parameters, (kind) => kind !== 'pointer');
}

/** Whether the pointer over a part changes its picture. */
export function followsPointer(compiled: Pick<CompiledMaterial, 'slots'>, { parameters }: Pick<MaterialSource, 'parameters'>): boolean {
  return compiled.slots.some(({ source }) => source.from === 'pointer') || livesOn(compiled, parameters, (kind) => kind === 'pointer');
}

function livesOn(
  { slots }: Pick<CompiledMaterial, 'slots'>,
  parameters: MaterialSource['parameters'],
  wanted: (kind: LiveInput['kind']) => boolean,
): boolean {
  return slots.some(({ source }) => {
    const live = source.from === 'parameter' || source.from === 'halves' ? parameters[source.parameter]?.live : undefined;
    return live !== undefined && wanted(live.kind);
  });
}

function chunks(numbers: readonly number[], size: number): number[][] {
  return Array.from({ length: numbers.length / size }, (_, index) => numbers.slice(index * size, index * size + size));
}
