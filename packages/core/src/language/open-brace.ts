import type { Range } from '../ir/origin';
import { LanguageError, write } from './diagnostics';
import type { Token } from './lexer';
import type { TokenReader } from './token-reader';

/**
 * Where a `}` is missing, told by how lines are indented: a `}` that begins its line further out than the line of the `{` that it
 * would close belongs to one further out, so what lies between was never closed.
 *
 * @returns an error at that place; nothing where the lines do not tell
 */
export function unclosedBrace(tokens: readonly Token[], text: string): LanguageError | undefined {
  const open: { readonly brace: Token; readonly indent: number }[] = [];
  let last: Token | undefined;
  for (const token of tokens) {
    if (token.text === '{') open.push({ brace: token, indent: indentOf(text, token.from) });
    else if (token.text === '}') {
      const top = open.pop();
      const begins = /^[ \t]*$/.test(text.slice(lineStart(text, token.from), token.from));
      if (top && begins && last && indentOf(text, token.from) < top.indent) return missing(top.brace, last, top.indent, text);
    }
    last = token;
  }
  return undefined;
}

function missing(brace: Token, last: Range, indent: number, text: string): LanguageError {
  const line = text.slice(0, brace.from).split('\n').length;
  const end = { from: last.to, to: last.to };
  return new LanguageError(`A "}" is missing here: the "{" in line ${line} is never closed.`, end, {
    mends: [write(`\n${' '.repeat(indent)}}`, end, 'Put “}”')],
    declared: { from: brace.from, to: brace.to },
  });
}

function lineStart(text: string, at: number): number {
  return text.lastIndexOf('\n', at - 1) + 1;
}

function indentOf(text: string, at: number): number {
  return /^[ \t]*/.exec(text.slice(lineStart(text, at), at))?.[0].length ?? 0;
}

/** Reads the `}` of a block. @throws LanguageError where it is missing, as near as can be told */
export function closeBlock(reader: TokenReader, text: string): void {
  if (reader.peek().kind !== 'end') {
    reader.expect('}', 'to close the block');
    return;
  }
  const error = unclosedBrace(reader.tokens, text);
  if (error) throw error;
  reader.expect('}', 'to close the block');
}
