import type { DistanceField } from '@brelvin/contract';
import { library as loadLibrary, type Library } from '../../catalogue/library';
import { fieldAsCode } from './field-as-code';
import { DOCK } from '../../document/graph';
import type { GraphProblem } from '../resolve';
import { readField } from '../../field/read-field';

/** A field as code, and what is wrong with its graph. */
export interface WrittenField {
  /** Absent where the graph cannot be written. */
  readonly text?: string;
  /** Of a graph, at its nodes; of a text nothing, since it is told where the text is written. */
  readonly problems: readonly GraphProblem[];
}

const written = new WeakMap<DistanceField, WrittenField>();

/** The code of a field: its own text, or what its graph says. */
export function writtenField(field: DistanceField, library: Library = loadLibrary()): WrittenField {
  const known = written.get(field);
  if (known) return known;
  const made = field.text === undefined ? ofGraph(field, library) : { text: field.text, problems: [] };
  written.set(field, made);
  return made;
}

function ofGraph(field: DistanceField, library: Library): WrittenField {
  const made = fieldAsCode(field, library);
  if ('problems' in made) return made;
  const { text, lines } = made.source;
  const errors = readField(text).diagnostics.filter(({ severity }) => severity === 'error');
  const problems = errors.map(({ line, message }): GraphProblem => ({ node: nodeOf(lines[line - 1]?.path), message }));
  return problems.length > 0 ? { problems } : { text, problems };
}

function nodeOf(path: string | undefined): string {
  return path === undefined || path === DOCK ? '' : path;
}
