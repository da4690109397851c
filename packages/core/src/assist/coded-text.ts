import { functionOptions, functionPath, importerOf } from '../catalogue/function-library';
import { library as loadLibrary, type Library } from '../catalogue/library';
import { CODE_PATH, codeOptions, VERTICES_PATH } from '../compile/code/read-code';
import { FIELD_OPTIONS, FIELD_PATH, readField } from '../field/read-field';
import { elaborate, goodMends, SymbolIndex, type Diagnostic, type ElaboratedSource } from '../language';

/** Which text is written: a material's, its vertex stage, a field's, a function of the Library, or a file of the shader library. */
export type TextRole =
  | { readonly role: 'material' | 'vertices' | 'field' }
  | { readonly role: 'function'; readonly name: string }
  | { readonly role: 'library'; readonly path: string };

/** A text with what its names stand for. */
export interface CodedText {
  readonly text: string;
  readonly path: string;
  readonly index: SymbolIndex;
  readonly read: ElaboratedSource;
}

const remembered: { readonly key: readonly unknown[]; readonly coded: CodedText }[] = [];
const MOST_REMEMBERED = 8;

/** Reads a text for questions about it; the same text is read once. */
export function codedText(text: string, role: TextRole, library: Library): CodedText {
  const path = pathOf(role);
  const key = [text, path, library];
  const found = remembered.find((each) => each.key.every((part, at) => part === key[at]));
  if (found) return found.coded;
  const index = new SymbolIndex();
  const options =
    role.role === 'function'
      ? { ...functionOptions(role.name, importerOf(library)), index }
      : role.role === 'library'
        ? { names: { mark: 'seen', allBut: '' }, index }
        : role.role === 'field'
          ? { ...FIELD_OPTIONS, index }
          : codeOptions(library, index);
  const coded = { text, path, index, read: elaborate(path, text, library.module, options) };
  remembered.unshift({ key, coded });
  remembered.length = Math.min(remembered.length, MOST_REMEMBERED);
  return coded;
}

function pathOf(role: TextRole): string {
  switch (role.role) {
    case 'material':
      return CODE_PATH;
    case 'vertices':
      return VERTICES_PATH;
    case 'field':
      return FIELD_PATH;
    case 'function':
      return functionPath(role.name);
    case 'library':
      return role.path;
  }
}

/** What is wrong with a function of the Library, as it is written. */
export function functionDiagnostics(name: string, text: string, library: Library = loadLibrary()): readonly Diagnostic[] {
  const read = (each: string): readonly Diagnostic[] =>
    elaborate(functionPath(name), each, library.module, functionOptions(name, importerOf(library))).diagnostics;
  const { diagnostics } = codedText(text, { role: 'function', name }, library).read;
  return goodMends(
    diagnostics,
    () => text,
    (_, mended) => read(mended),
  );
}

/** What is wrong with a field, as it is written. */
export function fieldDiagnostics(text: string): readonly Diagnostic[] {
  return readField(text).diagnostics;
}
