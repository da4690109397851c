import { DiagnosticList } from './diagnostics';
import { tokenize, type Token } from './lexer';
import { SourceText } from './source';

/** The tokens of a text, whether or not it is right. */
export function tokensOf(text: string): readonly Token[] {
  const source = new SourceText('text', text);
  return tokenize(source, new DiagnosticList(source));
}

const DEFINE = /^([ \t]*#[ \t]*define[ \t]+[A-Za-z_]\w*[ \t])(.*)$/gm;

/** A text in which a name is written otherwise, wherever it stands as a name: not in words of comments, nor in longer names. */
export function renamedIn(text: string, name: string, wanted: string): string {
  // Tokens have what a #define stands for at the places where it is put; where it is written, there are none.
  const defined = text.replace(DEFINE, (_, head: string, value: string) => head + value.replace(new RegExp(`\\b${name}\\b`, 'g'), wanted));
  let renamed = '';
  let at = 0;
  for (const { kind, from, to } of tokensOf(defined)) {
    if (kind !== 'name' || defined.slice(from, to) !== name) continue;
    renamed += defined.slice(at, from) + wanted;
    at = to;
  }
  return renamed + defined.slice(at);
}
