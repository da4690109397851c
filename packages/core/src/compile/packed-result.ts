import type { CompiledMaterial, CompileResult } from './compile-material';
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
