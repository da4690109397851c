import type { Module } from '../ir/ir';
import type { DeclaredUniform } from './declared-uniform';
import type { Diagnostic } from './diagnostics';
import type { Documentation } from './documentation';
import type { ImportSyntax } from './syntax';

/** A text that was read, of either language. */
export interface ElaboratedSource {
  readonly module: Module;
  readonly diagnostics: readonly Diagnostic[];
  /** Documentation comments by the signature of the function they stand before. */
  readonly documentation: ReadonlyMap<string, Documentation>;
  readonly uniforms: readonly DeclaredUniform[];
  /** Signatures of the text's own functions, in their order. */
  readonly own: readonly string[];
  /** Names after `import`. */
  readonly imports: readonly ImportSyntax[];
}
