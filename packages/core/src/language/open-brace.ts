import type { Range } from '../ir/origin';
import { LanguageError, write } from './diagnostics';
import type { Token } from './lexer';
import type { SourceText } from './source';
import type { TokenReader } from './token-reader';

/**
 * Where a `}` is missing, told by how lines are indented: a `}` that begins its line further out than the line of the `{` that it
 * would close belongs to one further out, so what lies between was never closed.
 *
 * @returns an error at that place; nothing where the lines do not tell
 */
export function unclosedBrace(tokens: readonly Token[], source: SourceText): LanguageError | undefined {
  const open: { readonly brace: Token; readonly indent: number }[] = [];
  let last: Token | undefined;
  let line = { starts: -1, indent: 0 };
  for (const token of tokens) {
    const starts = lineStart(source, token.from);
    const begins = starts !== line.starts;
    // The first word of a line says how far it is indented.
    if (begins) line = { starts, indent: token.from - starts };
    if (token.text === '{') open.push({ brace: token, indent: line.indent });
    else if (token.text === '}') {
      const top = open.pop();
      if (top && begins && last && line.indent < top.indent) return missing(top.brace, last, top.indent, source);
    }
    last = token;
  }
  return undefined;
}

function missing(brace: Token, last: Range, indent: number, source: SourceText): LanguageError {
  const end = { from: last.to, to: last.to };
  const { line } = source.position(brace.from);
  return new LanguageError(`A "}" is missing here: the "{" in line ${line} is never closed.`, end, {
    mends: [write(`\n${' '.repeat(indent)}}`, end, 'Put “}”')],
    declared: { from: brace.from, to: brace.to },
  });
}

function lineStart(source: SourceText, at: number): number {
  return at - source.position(at).column + 1;
}

/** Reads the `}` of a block. @throws LanguageError where it is missing, as near as can be told */
export function closeBlock(reader: TokenReader, source: SourceText): void {
  if (reader.take('}')) return;
  // All blocks that are open at the end, or where the next function begins, are open for one reason.
  if (reader.peek().kind !== 'end' && !beginsFunction(reader)) reader.expect('}', 'to close the block');
  throw (reader.unclosed ??= unclosedBrace(reader.tokens, source) ?? expected(reader));
}

/**
 * Whether the next function begins here because a `}` is missing before it. Where all braces are closed, somebody wrote one
 * function inside of another.
 */
export function beginsFunction(reader: TokenReader): boolean {
  if (!(reader.is('fn') ? reader.peek(1).kind === 'name' : isHead(reader))) return false;
  return reader.tokens.filter(({ text }) => text === '{').length > reader.tokens.filter(({ text }) => text === '}').length;
}

/** What a name may stand behind that is no type. */
const WORDS: ReadonlySet<string> = new Set(['else', 'return', 'switch', 'while', 'for', 'if', 'case', 'loop']);

/** `type name(…) {` of GLSL. */
function isHead(reader: TokenReader): boolean {
  if (reader.peek().kind !== 'name' || WORDS.has(reader.peek().text) || reader.peek(1).kind !== 'name' || !reader.is('(', 2)) return false;
  let depth = 0;
  for (let ahead = 2; reader.peek(ahead).kind !== 'end'; ahead++) {
    if (reader.is('(', ahead)) depth++;
    if (reader.is(')', ahead) && --depth === 0) return reader.is('{', ahead + 1);
    if (reader.is(';', ahead) || reader.is('{', ahead)) return false;
  }
  return false;
}

function expected(reader: TokenReader): LanguageError {
  const gap = { from: reader.last.to, to: reader.last.to };
  if (reader.peek().kind !== 'end')
    return new LanguageError('A "}" is missing here: the next function cannot stand inside of this one.', gap, {
      mends: [write('\n}', gap, 'Put “}”')],
    });
  return new LanguageError('Expected "}" to close the block, found the end of the code.', gap, { mends: [write('}', gap, 'Put “}”')] });
}
