import type { Range } from '../../ir/origin';
import { write, type DiagnosticList } from '../diagnostics';
import type { Token } from '../lexer';
import type { SourceText } from '../source';

const SPACE = /[\s\u0085\u200e\u200f\u2028\u2029]+/y;
const LINE_COMMENT = /\/\/[^\n]*/y;
const FLOAT =
  /0[xX](?:[0-9a-fA-F]*\.[0-9a-fA-F]+|[0-9a-fA-F]+\.[0-9a-fA-F]*)(?:[pP][+-]?\d+[fh]?)?|0[xX][0-9a-fA-F]+[pP][+-]?\d+[fh]?|(?:\d+\.\d*|\.\d+)(?:[eE][+-]?\d+)?[fh]?|\d+[eE][+-]?\d+[fh]?|(?:0|[1-9]\d*)[fh]/y;
const INTEGER = /(?:0[xX][0-9a-fA-F]+|0|[1-9]\d*)[iu]?/y;
const STUCK = /[A-Za-z_0-9]+/y;
const NAME = /[\p{XID_Start}_]\p{XID_Continue}*/uy;
// What begins with ">" may close templates, and is put together by the parser.
const OPERATOR = /<<=|<<|->|\+\+|--|&&|\|\||[<=!+\-*/%&|^]=|[-+*/%<>=!~&|^@:;,.()[\]{}]/y;

/** Splits WGSL into tokens (W3C, “WebGPU Shading Language”, section 3); the last one is the end. */
export function tokenizeWgsl({ text }: SourceText, diagnostics: DiagnosticList): Token[] {
  const tokens: Token[] = [];
  let at = 0;
  let documentation: Range | undefined;
  const span = (pattern: RegExp): number => {
    pattern.lastIndex = at;
    return pattern.test(text) ? pattern.lastIndex - at : 0;
  };
  const push = (kind: Token['kind'], length: number): void => {
    tokens.push({ kind, text: text.slice(at, at + length), from: at, to: at + length, documentation });
    documentation = undefined;
    at += length;
  };
  const number = (kind: 'float' | 'int' | 'uint', length: number): void => {
    at += length;
    const stuck = span(STUCK);
    at -= length;
    if (stuck > 0)
      diagnostics.add('error', `"${text.slice(at, at + length + stuck)}" is neither a number nor a name.`, {
        from: at,
        to: at + length + stuck,
      });
    push(kind, length + stuck);
  };
  for (let length = 0; at < text.length;) {
    if ((length = span(SPACE))) at += length;
    else if ((length = span(NAME))) push('name', length);
    else if ((length = span(LINE_COMMENT))) at += length;
    else if (text.startsWith('/*', at)) {
      const end = endOfComment(text, at);
      if (end === undefined) {
        const line = text.indexOf('\n', at);
        const place = { from: line < 0 ? text.length : line, to: line < 0 ? text.length : line };
        const mends = [write(' */', place, 'Close it at the end of the line')];
        diagnostics.add('error', 'This comment is never closed. Add "*/" where it should end.', { from: at, to: at + 2 }, { mends });
        break;
      }
      if (text.startsWith('/**', at)) documentation = { from: at, to: end };
      at = end;
    } else if ((length = span(FLOAT))) number('float', length);
    else if ((length = span(INTEGER))) number(text.charAt(at + length - 1) === 'u' ? 'uint' : 'int', length);
    else if ((length = span(OPERATOR))) push('operator', length);
    else {
      const character = String.fromCodePoint(text.codePointAt(at) ?? 0);
      const words =
        character === '#'
          ? 'WGSL has no preprocessor; “const” gives a name to a value.'
          : `The character "${character}" has no meaning here.`;
      diagnostics.add('error', words, { from: at, to: at + character.length });
      at += character.length;
    }
  }
  tokens.push({ kind: 'end', text: '', from: text.length, to: text.length });
  return tokens;
}

/** Block comments stand in one another. */
function endOfComment(text: string, from: number): number | undefined {
  let depth = 0;
  for (const { 0: mark, index } of text.slice(from).matchAll(/\/\*|\*\//g)) {
    depth += mark === '/*' ? 1 : -1;
    if (depth === 0) return from + index + 2;
  }
  return undefined;
}
