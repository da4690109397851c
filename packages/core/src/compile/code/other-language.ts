import type { MaterialCode } from '@brelvin/contract';
import { functionOptions, functionPath, importerOf } from '../../catalogue/function-library';
import type { Library } from '../../catalogue/library';
import { FIELD_OPTIONS, FIELD_PATH } from '../../field/read-field';
import { elaborate, isWgsl, NotInWgsl, type Diagnostic, type ElaborationOptions } from '../../language';
import { codeOptions, CODE_PATH, isWhole, readCode, VERTICES_PATH } from './read-code';
import { GlslEntryText, WgslEntryText } from './translating/entry-points';
import { GlslText } from './translating/glsl-text';
import { NameTable, type Original } from './translating/text-writer';
import { WgslText } from './translating/wgsl-text';

/** A text written in the other language; or why it is not. Of a whole program in GLSL the vertex stage has a text of its own. */
export type Translated =
  { readonly text: string; readonly vertices?: string; readonly language: 'GLSL' | 'WGSL' } | { readonly problem: string };

/** What is turned over: a material's text, that of a function of the Library, by its name, or that of a field. */
export interface Translatable {
  readonly text: string;
  readonly vertices?: string;
  readonly functionName?: string;
  readonly field?: boolean;
}

/** Writes a text in the other language: names, comments and structure are kept as far as both have them. */
export function inOtherLanguage(source: Translatable, library: Library): Translated {
  const { text } = source;
  try {
    if (isMaterial(source) && isWhole(source)) return wholeProgram(source, library);
    const { path, options } = readingOf(source, library);
    const read = elaborate(path, text, library.module, options);
    const problem = problemIn(read.diagnostics);
    if (problem) return { problem };
    const from: Original = { text, path, mark: options.names?.mark ?? '', read, library, namesConstants: source.field };
    return isWgsl(text) ? { text: new GlslText(from).write(), language: 'GLSL' } : { text: new WgslText(from).write(), language: 'WGSL' };
  } catch (failure) {
    if (failure instanceof NotInWgsl) return { problem: failure.message };
    throw failure;
  }
}

function isMaterial({ functionName, field }: Translatable): boolean {
  return functionName === undefined && !field;
}

function readingOf(
  { functionName, field }: Translatable,
  library: Library,
): { readonly path: string; readonly options: ElaborationOptions } {
  if (field) return { path: FIELD_PATH, options: FIELD_OPTIONS };
  if (functionName === undefined) return { path: CODE_PATH, options: codeOptions(library) };
  return { path: functionPath(functionName), options: functionOptions(functionName, importerOf(library)) };
}

function problemIn(diagnostics: readonly Diagnostic[]): string | undefined {
  const error = diagnostics.find(({ severity }) => severity === 'error');
  return error && `Mend the text first: line ${error.line}: ${error.message}`;
}

/** Both stages of a program with entry points of its own. */
function wholeProgram(code: MaterialCode, library: Library): Translated {
  const { diagnostics, program } = readCode(code, library);
  if (!program) return { problem: problemIn(diagnostics) ?? 'Mend the text first.' };
  const mark = codeOptions(library).names?.mark ?? '';
  const of = (text: string, path: string, { source }: { source: Original['read'] }): Original => ({
    text,
    path,
    mark,
    read: source,
    library,
  });
  const { pixels, vertices } = program;
  if (isWgsl(code.text)) {
    const stage = (each: typeof pixels): string => new GlslEntryText(of(code.text, CODE_PATH, each)).write();
    return { text: stage(pixels), ...(vertices ? { vertices: stage(vertices) } : {}), language: 'GLSL' };
  }
  const table = new NameTable();
  const carried = program.carried.map(({ name }) => name);
  const texts = [
    new WgslEntryText(of(code.text, CODE_PATH, pixels), 'pixels', carried, table).write(),
    ...(vertices ? [new WgslEntryText(of(code.vertices ?? '', VERTICES_PATH, vertices), 'vertices', carried, table).write()] : []),
  ];
  return { text: texts.join('\n'), language: 'WGSL' };
}
