import type { Library } from '../../catalogue/library';
import { applyChanges } from '../../document/transaction';
import type { Origin } from '../../ir/origin';
import { elaborate, NotInWgsl } from '../../language';
import type { GraphProblem } from '../resolve';
import { setMaterialCode } from './code-edits';
import type { GraphAsCode } from './graph-as-code';
import { codeOptions, CODE_PATH } from './read-code';
import { WgslText } from './translating/wgsl-text';

/** A graph's code in WGSL instead of GLSL: the same names and structure, and each line knows its node as before. */
export function graphInWgsl(
  { source, material }: GraphAsCode,
  library: Library,
): GraphAsCode | { readonly problems: readonly GraphProblem[] } {
  const options = codeOptions(library);
  const read = elaborate(CODE_PATH, source.text, library.module, options);
  const wrong = read.diagnostics.find(({ severity }) => severity === 'error');
  if (wrong) throw new TypeError(`a graph’s own code is wrong: line ${wrong.line}: ${wrong.message}`);
  try {
    const original = { text: source.text, path: CODE_PATH, mark: options.names?.mark ?? '', read, library };
    const { text, lines } = new WgslText(original).written();
    const begins = lineStarts(source.text);
    const nodeOf = (origin: Origin | undefined): Origin | undefined =>
      origin?.path === CODE_PATH && origin.range ? source.lines[lineAt(begins, origin.range.from)] : undefined;
    const made = applyChanges(material, setMaterialCode(material, { text }).changes);
    return { source: { text, lines: lines.map(nodeOf) }, material: made };
  } catch (failure) {
    if (failure instanceof NotInWgsl) return { problems: [{ node: '', message: failure.message }] };
    throw failure;
  }
}

function lineStarts(text: string): readonly number[] {
  return [0, ...[...text.matchAll(/\n/g)].map(({ index }) => index + 1)];
}

/** The line of a place, from 0. */
function lineAt(begins: readonly number[], place: number): number {
  let [low, high] = [0, begins.length - 1];
  while (low < high) {
    const middle = Math.ceil((low + high) / 2);
    if ((begins[middle] ?? 0) <= place) low = middle;
    else high = middle - 1;
  }
  return low;
}
