import { importerOf } from '../catalogue/function-library';
import { library as loadLibrary, type Library } from '../catalogue/library';
import { SYSTEM_UNIFORMS } from '../compile/code/system-names';
import type { IrFunction } from '../ir/ir';
import type { Origin, Range } from '../ir/origin';
import { NAMED_TYPES, VEC4, type StructType, type Type } from '../ir/types';
import { writtenGlobal, type TextEdit } from '../language';
import { codedText, type CodedText, type TextRole } from './coded-text';
import { dialectOf, type Dialect } from './dialect';
import { helpFor, type NameHelp } from './help';

/** Something that can be written at a place. */
export interface Completion {
  readonly label: string;
  readonly kind: 'variable' | 'parameter' | 'function' | 'built-in' | 'field' | 'type' | 'word' | 'from the Library';
  /** How it is written in full. */
  readonly detail: string;
  readonly help: string;
  /** Likelier ones are higher. */
  readonly rank: number;
}

export interface Completions {
  /** Where the word begins that is completed. */
  readonly from: number;
  readonly options: readonly Completion[];
}

const NAME_BEFORE = /[A-Za-z_]\w*$/;
const CHAIN_BEFORE = /([A-Za-z_][\w.[\]]*)\.(\w*)$/;

/** What can stand at a place of a text. */
export function completionsAt(text: string, role: TextRole, offset: number, library: Library = loadLibrary()): Completions | undefined {
  const before = text.slice(Math.max(0, offset - 200), offset);
  if (/\/\/[^\n]*$/.test(before)) return undefined;
  const coded = codedText(text, role, library);
  const [, chain, field] = CHAIN_BEFORE.exec(before) ?? [];
  if (chain !== undefined && field !== undefined) {
    const type = chainType(chain, coded, offset);
    return type && { from: offset - field.length, options: membersOf(type, dialectOf(text)) };
  }
  const word = NAME_BEFORE.exec(before)?.[0] ?? '';
  if (/\bimport\s+\w*$/.test(before)) {
    const options = [...importerOf(library).names].map(
      (label) => ({ label, kind: 'from the Library', detail: `import ${label};`, help: 'A function of the Library.', rank: 1 }) as const,
    );
    return { from: offset - word.length, options };
  }
  return { from: offset - word.length, options: names(coded, offset, library) };
}

function names(coded: CodedText, offset: number, library: Library): Completion[] {
  const { read, index, text } = coded;
  const dialect = dialectOf(text);
  const seen = new Set<string>();
  const found: Completion[] = [];
  const add = (completion: Completion): void => {
    if (seen.has(completion.label)) return;
    seen.add(completion.label);
    found.push(completion);
  };
  for (const { name, type, from, to } of [...index.variables].reverse())
    if (from <= offset && offset <= to) add({ label: name, kind: 'variable', detail: dialect.variable(name, type), help: '', rank: 5 });
  for (const { name, type } of read.uniforms)
    add({ label: name, kind: 'parameter', detail: dialect.uniform(name, type), help: 'A parameter.', rank: 4 });
  const { functions } = read.module;
  const own = new Set(read.own);
  for (const signature of own) addFunction(functions.get(signature), 4);
  for (const each of functions.values()) {
    if (own.has(each.signature)) continue;
    addFunction(each, library.module.functions.has(each.signature) ? 1 : 3);
  }
  for (const name of dialect.builtins) {
    const help = dialect.builtinHelp(name);
    add({ label: name, kind: 'built-in', detail: help?.signatures[0] ?? name, help: help?.help ?? '', rank: 2 });
  }
  for (const name of dialect.types) add({ label: name, kind: 'type', detail: name, help: '', rank: 2 });
  for (const name of ['Lit', 'Surface', 'Shape']) add({ label: name, kind: 'type', detail: `struct ${name}`, help: '', rank: 2 });
  for (const name of dialect.words) add({ label: name, kind: 'word', detail: '', help: '', rank: 1 });
  for (const name of importerOf(library).names)
    add({ label: name, kind: 'from the Library', detail: `import ${name};`, help: 'A function of the Library, to be imported.', rank: 0 });
  if (dialect.isWhole(text))
    for (const [name, { type, help }] of Object.entries(SYSTEM_UNIFORMS))
      add({ label: name, kind: 'variable', detail: dialect.uniform(name, NAMED_TYPES.get(type) ?? VEC4), help, rank: 2 });
  return found;

  function addFunction(declared: IrFunction | undefined, rank: number): void {
    if (!declared || declared.name.includes('_')) return;
    const kind = [...library.kinds.values()].find(({ overloads }) => overloads.includes(declared));
    add({
      label: declared.name,
      kind: 'function',
      detail: dialect.head(declared),
      help: kind?.help ?? '',
      rank: kind ? rank + 0.5 : rank,
    });
  }
}

/** The type of `a.b[0].c` at a place, as far as it can be told. */
function chainType(chain: string, { index, read, text }: CodedText, offset: number): Type | undefined {
  const dialect = dialectOf(text);
  const [first = '', ...fields] = chain.replace(/\[[^\]]*\]/g, '.[]').split('.');
  const variable = [...index.variables].reverse().find(({ name, from, to }) => name === first && from <= offset && offset <= to);
  const global = [...read.module.globals.values()].find(({ name }) => writtenGlobal(name) === first);
  let type = variable ? typeNamed(variable.type, read.module.structs, dialect) : global?.type;
  for (const field of fields) {
    if (type?.kind === 'struct') type = type.fields.find(({ name }) => name === field)?.type;
    else if (type?.kind === 'array') type = type.element;
    else if (type?.kind === 'vector') type = NAMED_TYPES.get(field.length === 1 || field === '[]' ? 'float' : `vec${field.length}`);
    else return undefined;
  }
  return type;
}

/** `vec4[8]` or `array<vec4f, 8>`; what a pointer points to. */
function typeNamed(name: string, structs: ReadonlyMap<string, StructType>, dialect: Dialect): Type | undefined {
  const pointed = /^ptr<function, (.*)>$/.exec(name)?.[1];
  if (pointed) return typeNamed(pointed, structs, dialect);
  const [, element = name, length] = /^(.*)\[(\d+)\]$/.exec(name) ?? /^array<(.*), (\d+)>$/.exec(name) ?? [];
  const type = dialect.typeNamed(element) ?? structs.get(element);
  return type && length !== undefined ? { kind: 'array', element: type, length: Number(length) } : type;
}

function membersOf(type: Type, dialect: Dialect): Completion[] {
  if (type.kind === 'struct') {
    return type.fields.map(({ name, type: field }) => ({
      label: name,
      kind: 'field',
      detail: dialect.variable(name, dialect.typeWords(field)),
      help: '',
      rank: 3,
    }));
  }
  if (type.kind !== 'vector') return [];
  const letters = ['xyzw', 'rgba'].map((set) => set.slice(0, type.size));
  const labels = letters.flatMap((set) => [
    ...[...set],
    ...(type.size > 2 ? [set.slice(0, 2)] : []),
    ...(type.size > 3 ? [set.slice(0, 3)] : []),
    set,
  ]);
  return [...new Set(labels)].map((label) => ({
    label,
    kind: 'field',
    detail: label.length === 1 ? 'one component' : `${label.length} components`,
    help: '',
    rank: 1,
  }));
}

/** What is said of the name at a place. */
export function helpAt(
  text: string,
  role: TextRole,
  offset: number,
  library: Library = loadLibrary(),
): (NameHelp & Range & { readonly declared?: Origin }) | undefined {
  const coded = codedText(text, role, library);
  const use = coded.index.at(offset);
  if (!use) return undefined;
  const { declared } = use.symbol;
  return { from: use.from, to: use.to, ...helpFor(use.symbol, coded, library), ...(declared ? { declared } : {}) };
}

/** Where the name at a place is declared. */
export function definitionAt(text: string, role: TextRole, offset: number, library: Library = loadLibrary()): Origin | undefined {
  return codedText(text, role, library).index.at(offset)?.symbol.declared;
}

/** The names that would change with the one at a place: what may be renamed, and what it is called. */
export function renamable(
  text: string,
  role: TextRole,
  offset: number,
  library: Library = loadLibrary(),
): { readonly name: string; readonly places: readonly Range[] } | undefined {
  const { index, path } = codedText(text, role, library);
  const use = index.at(offset);
  if (!use || use.symbol.declared?.path !== path) return undefined;
  const places = index.same(use.symbol);
  return places.length > 0 ? { name: use.symbol.name, places } : undefined;
}

/** Edits that give the name at a place another one; or why not. */
export function renameAt(
  text: string,
  role: TextRole,
  offset: number,
  wanted: string,
  library: Library = loadLibrary(),
): { readonly edits: readonly TextEdit[] } | { readonly problem: string } {
  const found = renamable(text, role, offset, library);
  if (!found) return { problem: 'What stands here has its name from elsewhere. Put the cursor on a name that this text declares.' };
  if (!/^[A-Za-z_]\w{0,63}$/.test(wanted)) return { problem: 'A name begins with a letter, and has only letters, digits and “_”.' };
  const { words, types, builtins } = dialectOf(text);
  if (words.includes(wanted) || types.includes(wanted) || builtins.includes(wanted))
    return { problem: `“${wanted}” is a word of the language.` };
  const { index } = codedText(text, role, library);
  if (index.uses.some(({ symbol }) => symbol.name === wanted && symbol.kind !== 'field'))
    return { problem: `“${wanted}” is used in this text already.` };
  return { edits: found.places.map((place) => ({ ...place, text: wanted })) };
}
