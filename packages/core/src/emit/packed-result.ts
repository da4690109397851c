import type { GraphProblem } from '../compile/resolve';
import { packSlots, unpackSlots, type SlotTable } from '../compile/slot-table';
import type { EmittedMaterial, EmittedOutlets, EmittedResult } from './emitted-material';

/** Stands for what the receiver has from the result before. */
export const AS_BEFORE = 'as before';

/** A result in the form in which it crosses from the worker quickly. */
export interface PackedResult extends Omit<EmittedResult, 'compiled' | 'rates'> {
  readonly compiled?: PackedMaterial | typeof AS_BEFORE;
  readonly rates: EmittedResult['rates'] | typeof AS_BEFORE;
}

type PackedMaterial = Omit<EmittedMaterial, 'slots'> & { readonly slots: SlotTable };

/** @param before the result that the receiver has; what is equal in both is not sent again */
export function packResult({ compiled, rates, ...result }: EmittedResult, before?: EmittedResult): PackedResult {
  return {
    ...result,
    rates: before && sameRecord(rates, before.rates) ? AS_BEFORE : rates,
    ...(compiled && { compiled: before?.compiled && sameProgram(compiled, before.compiled) ? AS_BEFORE : pack(compiled) }),
  };
}

/**
 * @param before the result that was unpacked before; what stayed is taken from it, as the same objects
 * @throws RangeError for what is as before without one
 */
export function unpackResult({ compiled, rates, ...result }: PackedResult, before?: EmittedResult): EmittedResult {
  const kept = compiled === AS_BEFORE ? before?.compiled : compiled && { ...compiled, slots: unpackSlots(compiled.slots) };
  const keptRates = rates === AS_BEFORE ? before?.rates : rates;
  if (!keptRates || (compiled && !kept)) throw new RangeError('there is no result before');
  return { ...result, rates: keptRates, ...(kept && { compiled: kept }) };
}

function pack(compiled: EmittedMaterial): PackedMaterial {
  return { ...compiled, slots: packSlots(compiled.slots) };
}

/** Equal keys are equal programs; what feeds them may differ. */
function sameProgram({ program: _program, variants, blocks: _blocks, ...fed }: EmittedMaterial, before: EmittedMaterial): boolean {
  const { program: _theirs, variants: theirVariants, blocks: _theirBlocks, ...theirFed } = before;
  const programs = (all: EmittedMaterial['variants']): string => Object.keys(all).sort().join();
  return fed.key === theirFed.key && programs(variants) === programs(theirVariants) && JSON.stringify(fed) === JSON.stringify(theirFed);
}

function sameRecord(a: Readonly<Record<string, string>>, b: Readonly<Record<string, string>>): boolean {
  const keys = Object.keys(a);
  return keys.length === Object.keys(b).length && keys.every((key) => a[key] === b[key]);
}

export type PackedOutlets =
  (Omit<EmittedOutlets, 'compiled'> & { readonly packed: PackedMaterial }) | { readonly problems: readonly GraphProblem[] };

export function packOutlets(result: EmittedOutlets | { readonly problems: readonly GraphProblem[] }): PackedOutlets {
  if (!('compiled' in result)) return result;
  const { compiled, outlets } = result;
  return { outlets, packed: pack(compiled) };
}

export function unpackOutlets(result: PackedOutlets): EmittedOutlets | { readonly problems: readonly GraphProblem[] } {
  if (!('packed' in result)) return result;
  const { packed, outlets } = result;
  return { outlets, compiled: { ...packed, slots: unpackSlots(packed.slots) } };
}
