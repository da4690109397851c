import {
  COUNTED_STEPS,
  compileMaterial,
  library,
  libraryWith,
  loopsCountedIn,
  newCodeMaterial,
  readCode,
  type CodeMend,
  type Diagnostic,
  type GraphProblem,
  type PlacedLoop,
  type Range,
  type RelatedPlace,
} from '@brelvin/core';
import { beyondBudget, type CheckedBudget } from '../budget';
import { CODE_FILE, foundIn, libraryBeside, readCodeFile } from '../code-file';
import type { ExitCode, Output } from '../output';
import { BadFile, readBrelvinDocument } from '../read-file';

/** What was found in a file; of code with its place, offsets counted in UTF-16 units, lines and columns from 1. */
export interface FoundProblem extends Partial<Omit<GraphProblem, 'message'>> {
  readonly message: string;
  /** A note is no mistake: it says what becomes of something that is right. */
  readonly severity?: Diagnostic['severity'] | 'note';
  readonly line?: number;
  readonly column?: number;
  readonly range?: Range;
  readonly mends?: readonly CodeMend[];
  readonly related?: readonly RelatedPlace[];
}

export interface FileReport {
  readonly file: string;
  readonly problems: readonly FoundProblem[];
}

/** Reads and compiles documents and shading code; says what is wrong with each file. */
export async function check(
  files: readonly string[],
  { json, warningsFine, budget }: { json?: boolean; warningsFine?: boolean; budget?: CheckedBudget },
  output: Output,
): Promise<ExitCode> {
  const reports: FileReport[] = [];
  for (const file of files) reports.push({ file, problems: await problemsOf(file, budget) });
  if (json) output.out(JSON.stringify(reports, null, 2));
  else for (const report of reports) tell(report, output);
  const counts = ({ severity }: FoundProblem): boolean => severity !== 'note' && !(warningsFine && severity === 'warning');
  return reports.some(({ problems }) => problems.some(counts)) ? 1 : 0;
}

/** Writes a report as lines: `file:line:column: severity: message`. */
export function tell({ file, problems }: FileReport, output: Output): void {
  if (problems.every(({ severity }) => severity === 'note')) output.out(`${file}: fine`);
  for (const { node, inlet, message, severity, line, column, mends = [] } of problems) {
    const place =
      line === undefined ? ` ${node ? `${[node, inlet].filter(Boolean).join('.')}: ` : ''}` : `${line}:${column}: ${severity}: `;
    const mend = mends.map(({ label }) => ` ${label}.`).join('');
    output.err(`${file}:${place}${message}${mend && ` To mend:${mend}`}`);
  }
}

export async function problemsOf(file: string, budget?: CheckedBudget): Promise<FileReport['problems']> {
  try {
    if (CODE_FILE.test(file)) {
      const { diagnostics, loops } = await foundIn(file);
      const read = budget && (await readCodeFile(file));
      const beyond =
        budget && read?.kind === 'material'
          ? await beyondBudget(file, newCodeMaterial(file, {}, read.code), budget, await libraryBeside(file))
          : [];
      return [...diagnostics.map(plain), ...loops.map(note), ...beyond.map(spent)];
    }
    const { document, functions } = await readBrelvinDocument(file);
    if (document.format !== 'brelvin-material') return [];
    const texts = new Map([...functions].map(([name, text]) => [name, { text }]));
    const known = texts.size > 0 ? libraryWith(texts, library()) : library();
    const result = compileMaterial(document, known);
    return [
      ...(result.diagnostics?.map(plain) ?? result.problems),
      ...(budget ? (await beyondBudget(file, document, budget, known)).map(spent) : []),
      ...(document.code ? loopsCountedIn(document.code, readCode(document.code, known)) : []).map(note),
    ];
  } catch (error) {
    if (error instanceof BadFile) return [{ message: error.message.replace(`${file}: `, '') }];
    throw error;
  }
}

function plain({ message, severity, line, column, range, mends, related }: Diagnostic): FoundProblem {
  return { severity, message, line, column, range, ...(mends ? { mends } : {}), ...(related ? { related } : {}) };
}

function spent(message: string): FoundProblem {
  return { message };
}

/** What becomes of a loop whose length the text does not say. */
function note({ line, column, range }: PlacedLoop): FoundProblem {
  const message = `Nothing in the text says how often this loop goes round. All such loops of one pixel have ${COUNTED_STEPS} steps; where they run out, the picture shows stripes.`;
  return { severity: 'note', message, line, column, range };
}
