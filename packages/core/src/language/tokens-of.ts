import { DiagnosticList } from './diagnostics';
import { tokenize, type Token } from './lexer';
import { SourceText } from './source';

/** The tokens of a text, whether or not it is right. */
export function tokensOf(text: string): readonly Token[] {
  const source = new SourceText('text', text);
  return tokenize(source, new DiagnosticList(source));
}
