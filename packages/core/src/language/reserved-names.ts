import type { Range } from '../ir/origin';
import { LanguageError, type CodeMend } from './diagnostics';
import { isReserved } from './printing/written-name';
import type { SourceText } from './source';
import { tokensOf } from './tokens-of';

/** @throws LanguageError for a name that the language keeps for itself (GLSL ES 3.00 specification, sections 3.7 and 3.8) */
export function refuseName(name: string, range: Range, { text }: SourceText): void {
  if (name.startsWith('gl_')) throw new LanguageError('Names that begin with “gl_” belong to the language. Choose another one.', range);
  if (!isReserved(name)) return;
  throw new LanguageError(`“${name}” is a word that the language keeps for itself. Choose another name.`, range, {
    mends: [renamed(name, text)],
  });
}

/** Another name, wherever this one stands. */
function renamed(name: string, text: string): CodeMend {
  const free = `${name}Value`;
  const edits = tokensOf(text).flatMap(({ kind, from, to }) =>
    kind === 'name' && text.slice(from, to) === name ? [{ from, to, text: free }] : [],
  );
  return { label: `Call it “${free}”`, edits };
}
