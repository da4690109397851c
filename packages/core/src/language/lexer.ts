import type { DiagnosticList } from './diagnostics';
import { Preprocessor } from './preprocessor/preprocessor';
import type { Token } from './token';
import type { SourceText } from './source';

export type { Token } from './token';

/** Splits shading code into tokens, after the preprocessor has had its way with it; the last one is the end. */
export function tokenize(source: SourceText, diagnostics: DiagnosticList): Token[] {
  const tokens = new Preprocessor(source, diagnostics).tokens();
  tokens.push({ kind: 'end', text: '', from: source.text.length, to: source.text.length });
  return tokens;
}
