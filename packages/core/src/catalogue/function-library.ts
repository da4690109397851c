import type { IrFunction, Module } from '../ir/ir';
import { hardened } from '../ir/hardened';
import {
  elaborate,
  importsOf,
  type Diagnostic,
  type Documentation,
  type ElaborationOptions,
  type ImportedFunction,
  type Importer,
  type ImportProblem,
} from '../language';
import type { StructType } from '../ir/types';
import { labelOf, portsOf } from './function-kind';
import type { NodeKind } from './kind';
import type { Library } from './library';

/** A function of the workspace's Library, by the name by which it is imported. */
export interface FunctionText {
  readonly text: string;
  /** What it was called before: these names go on working. */
  readonly formerNames?: readonly string[];
}
export type FunctionTexts = ReadonlyMap<string, FunctionText>;

export const NO_FUNCTIONS: FunctionTexts = new Map();

/** A function that was read. */
export interface ReadFunction {
  readonly name: string;
  /** Its name in its own text: another one while somebody renames it there. */
  readonly called?: string;
  readonly diagnostics: readonly Diagnostic[];
  readonly documentation?: Documentation;
  /** Absent while it has an error. */
  readonly imported?: ImportedFunction;
  /** As a kind of node; or why it is none. */
  readonly kind?: NodeKind;
  readonly noNode?: string;
}

/** Kinds of nodes that call functions of the workspace's Library. */
const PREFIX = 'library-';

export function functionKindId(name: string): string {
  return `${PREFIX}${name}`;
}

/** The function that a kind of node calls; nothing for other kinds. */
export function functionOfKind(kind: string): string | undefined {
  return kind.startsWith(PREFIX) ? kind.slice(PREFIX.length) : undefined;
}

/** Where the text of a function stands in diagnostics and origins. */
export function functionPath(name: string): string {
  return `function ${name}`;
}

interface Remembered {
  /** The texts it was made of: its own, and those of all that it imports. */
  readonly texts: ReadonlyMap<string, string | undefined>;
  readonly read: ReadFunction;
}

/** What was read before, by name: an edit to one function does not read the others again. */
const remembered = new Map<string, Remembered>();

/** Reads functions when they are first asked for; circles of imports are told. */
export class FunctionLibrary implements Importer {
  private readonly reading: string[] = [];
  private readonly known = new Map<string, ReadFunction>();
  /** Names of today by what they were before. */
  private readonly former = new Map<string, string>();

  constructor(
    readonly texts: FunctionTexts,
    private readonly base: Library,
  ) {
    for (const [name, { formerNames = [] }] of texts) for (const each of formerNames) if (!texts.has(each)) this.former.set(each, name);
  }

  get names(): Iterable<string> {
    return this.texts.keys();
  }

  import(name: string): ImportedFunction | ImportProblem {
    const today = this.former.get(name);
    if (!this.texts.has(name) && today !== undefined) {
      const found = this.import(today);
      return 'problem' in found ? found : { ...found, visible: found.visible };
    }
    if (!this.texts.has(name)) return { problem: `There is no function "${name}" in the Library.` };
    const circle = this.reading.indexOf(name);
    if (circle >= 0) {
      const path = [...this.reading.slice(circle), name].join(' → ');
      return { problem: `These functions import each other in a circle: ${path}. Take one of the imports away.` };
    }
    const { imported, diagnostics } = this.read(name);
    if (imported) return imported;
    const error = diagnostics.find(({ severity }) => severity === 'error');
    return { problem: `The function "${name}" cannot be used: line ${error?.line ?? 1} of it says: ${error?.message ?? 'it is empty'}` };
  }

  /** @throws RangeError when there is no such function */
  read(name: string): ReadFunction {
    const known = this.known.get(name) ?? this.remember(name);
    if (known) {
      this.known.set(name, known);
      return known;
    }
    const text = this.texts.get(name)?.text;
    if (text === undefined) throw new RangeError(`there is no function ${name}`);
    this.reading.push(name);
    try {
      const read = readFunction(name, text, this.base.module, this);
      this.known.set(name, read);
      // What a circle made of it depends on where one came into it.
      if (this.reading.length === 1) remembered.set(name, { texts: this.closure(name), read });
      return read;
    } finally {
      this.reading.pop();
    }
  }

  private remember(name: string): ReadFunction | undefined {
    const before = remembered.get(name);
    if (!before || this.reading.length > 0) return undefined;
    return [...before.texts].every(([each, text]) => this.texts.get(each)?.text === text) ? before.read : undefined;
  }

  private closure(name: string): Map<string, string | undefined> {
    const found = new Map<string, string | undefined>();
    const enter = (each: string): void => {
      if (found.has(each)) return;
      const text = this.texts.get(each)?.text;
      found.set(each, text);
      for (const next of importsOf(text ?? '')) enter(next);
    };
    enter(name);
    return found;
  }

  /** Every function that can be a node, as its kind; under its former names too. */
  kinds(): Map<string, NodeKind> {
    const kinds = new Map<string, NodeKind>();
    for (const name of this.texts.keys()) {
      const { kind } = this.read(name);
      if (kind) kinds.set(kind.id, kind);
    }
    for (const [before, name] of this.former) {
      const kind = kinds.get(functionKindId(name));
      if (kind) kinds.set(functionKindId(before), kind);
    }
    return kinds;
  }
}

/** What the text of a function of the Library is read with, so that its names stay apart from all others. */
export function functionOptions(name: string, importer: Importer): ElaborationOptions {
  return { advice: true, importer, names: { mark: name, allBut: name } };
}

function readFunction(name: string, text: string, module: Module, importer: Importer): ReadFunction {
  const read = elaborate(functionPath(name), text, module, functionOptions(name, importer));
  const own = read.own.flatMap((signature) => read.module.functions.get(signature) ?? []);
  const plainName = (each: IrFunction): string => (each.name.endsWith(`_${name}`) ? each.name.slice(0, -name.length - 1) : each.name);
  // Where none has its name it is being renamed: what is written last is meant, so that those who use it go on.
  const called = own.some((each) => plainName(each) === name) ? name : own.map(plainName).at(-1);
  const visible = own.filter((each) => plainName(each) === called);
  const diagnostics = [...read.diagnostics];
  const [first] = visible;
  if (called !== undefined && called !== name) {
    const message = `It is called "${called}" here and "${name}" in the Library. Once typing rests it is "${called}" there too, unless another function has that name.`;
    diagnostics.push({ severity: 'warning', message, path: functionPath(name), range: { from: 0, to: 0 }, line: 1, column: 1 });
  }
  if (!first && !diagnostics.some(({ severity }) => severity === 'error')) {
    const message = `Nothing in this code is a function called "${name}", which is its name in the Library.`;
    diagnostics.push({ severity: 'error', message, path: functionPath(name), range: { from: 0, to: 0 }, line: 1, column: 1 });
  }
  const documentation = visible.flatMap((each) => read.documentation.get(each.signature) ?? [])[0];
  if (!first || diagnostics.some(({ severity }) => severity === 'error')) return { name, called, diagnostics, documentation };
  const safe = hardened(own, read.module.functions);
  const safely = (each: IrFunction): IrFunction => safe.find(({ signature }) => signature === each.signature) ?? each;
  const brought = [...read.module.functions.values()].filter((each) => !module.functions.has(each.signature));
  const functions = brought.map(safely);
  const imported: ImportedFunction = { visible: visible.map(safely), structs: structsOf(visible, name), functions };
  const ports = portsOf(first, documentation);
  if ('unfit' in ports) return { name, called, diagnostics, documentation, imported, noNode: ports.unfit };
  const told = (tag: string): string | undefined => documentation?.tags.find((each) => each.name === tag)?.text;
  const overloads = imported.visible.filter((each) => each.parameters.length === first.parameters.length);
  const kind: NodeKind = {
    id: functionKindId(name),
    rev: 1,
    title: documentation?.title || labelOf(name),
    family: told('family') ?? 'Of the Library',
    help: documentation?.help || 'A function of the Library.',
    source: told('source') ?? 'A function of this workspace’s Library',
    words: [name, 'function', ...(told('words') ?? '').split(/,\s*/).filter(Boolean)],
    ...ports,
    overloads,
    functions,
  };
  return { name, called, diagnostics, documentation, imported, kind };
}

/** Structs that signatures speak of, by their name in the text. */
function structsOf(functions: readonly IrFunction[], mark: string): Map<string, StructType> {
  const found = new Map<string, StructType>();
  for (const { parameters, result } of functions) {
    for (const type of [result, ...parameters.map((each) => each.type)]) {
      const element = type.kind === 'array' ? type.element : type;
      if (element.kind === 'struct' && element.name.endsWith(`_${mark}`)) found.set(element.name.slice(0, -mark.length - 1), element);
    }
  }
  return found;
}

/** The shader library with the workspace's functions: as kinds of nodes, and to be imported. */
export interface WorkspaceLibrary extends Library {
  readonly workspace: FunctionLibrary;
}

let last: { readonly texts: FunctionTexts; readonly library: WorkspaceLibrary } | undefined;

/** The same texts give the same library. */
export function libraryWith(texts: FunctionTexts, base: Library): WorkspaceLibrary {
  if (last?.texts === texts) return last.library;
  const workspace = new FunctionLibrary(texts, base);
  const library: WorkspaceLibrary = { ...base, workspace, kinds: new Map([...base.kinds, ...workspace.kinds()]) };
  last = { texts, library };
  return library;
}

/** The functions that can be imported with a library. */
export function importerOf(library: Library): Importer {
  return 'workspace' in library ? (library as WorkspaceLibrary).workspace : new FunctionLibrary(NO_FUNCTIONS, library);
}

/** What a function of the Library is called in its own text; nothing where there is none. */
export function nameInText(library: Library, name: string): string | undefined {
  const importer = importerOf(library);
  return importer instanceof FunctionLibrary && importer.texts.has(name) ? importer.read(name).called : undefined;
}
