import type { CompiledMaterial, CompileResult } from './compiled-material';
import type { CompiledOutlets } from './compile-outlets';
import type { GraphProblem } from './resolve';
import { packSlots, unpackSlots, type SlotTable } from './slot-table';

/** A result in the form in which it crosses from the worker quickly. */
export interface PackedResult extends Omit<CompileResult, 'compiled'> {
  readonly compiled?: Omit<CompiledMaterial, 'slots'> & { readonly slots: SlotTable };
}

export function packResult({ compiled, ...result }: CompileResult): PackedResult {
  return compiled ? { ...result, compiled: { ...compiled, slots: packSlots(compiled.slots) } } : result;
}

export function unpackResult({ compiled, ...result }: PackedResult): CompileResult {
  return compiled ? { ...result, compiled: { ...compiled, slots: unpackSlots(compiled.slots) } } : result;
}

export type PackedOutlets =
  | (Omit<CompiledOutlets, 'compiled'> & { readonly packed: NonNullable<PackedResult['compiled']> })
  | { readonly problems: readonly GraphProblem[] };

export function packOutlets(result: CompiledOutlets | { readonly problems: readonly GraphProblem[] }): PackedOutlets {
  if (!('compiled' in result)) return result;
  const { compiled, outlets } = result;
  return { outlets, packed: { ...compiled, slots: packSlots(compiled.slots) } };
}

export function unpackOutlets(result: PackedOutlets): CompiledOutlets | { readonly problems: readonly GraphProblem[] } {
  if (!('packed' in result)) return result;
  const { packed, outlets } = result;
  return { outlets, compiled: { ...packed, slots: unpackSlots(packed.slots) } };
}
