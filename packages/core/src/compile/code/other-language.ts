import { functionOptions, functionPath, importerOf } from '../../catalogue/function-library';
import type { Library } from '../../catalogue/library';
import type { Global, IrFunction } from '../../ir/ir';
import type { Origin, Range } from '../../ir/origin';
import { typeName, type StructType, type Type } from '../../ir/types';
import {
  elaborate,
  functionHead,
  isWgsl,
  LineWriter,
  NotInWgsl,
  printDeclarator,
  printStatements,
  printValue,
  printWgslValue,
  WgslStatementWriter,
  wgslTypeName,
  writtenName,
  wgslName,
  type ElaboratedSource,
  type PrintedNames,
} from '../../language';
import { codeOptions, CODE_PATH, isWhole } from './read-code';

/** A text written in the other language; or why it is not. */
export type Translated = { readonly text: string; readonly language: 'GLSL' | 'WGSL' } | { readonly problem: string };

/** What is turned over: a material's text, or that of a function of the Library, by its name. */
export interface Translatable {
  readonly text: string;
  readonly vertices?: string;
  readonly functionName?: string;
}

/** Writes a text in the other language: names, comments and structure are kept as far as both have them. */
export function inOtherLanguage({ text, vertices, functionName }: Translatable, library: Library): Translated {
  if (functionName === undefined && isWhole({ text, vertices }))
    return {
      problem:
        'Programs with entry points of their own cannot be turned into the other language yet: their stages are put together otherwise there.',
    };
  const path = functionName === undefined ? CODE_PATH : functionPath(functionName);
  const options = functionName === undefined ? codeOptions(library) : functionOptions(functionName, importerOf(library));
  const read = elaborate(path, text, library.module, options);
  const error = read.diagnostics.find(({ severity }) => severity === 'error');
  if (error) return { problem: `Mend the text first: line ${error.line}: ${error.message}` };
  const language = isWgsl(text) ? 'GLSL' : 'WGSL';
  const from: Original = { text, path, mark: options.names?.mark ?? '', read, library };
  try {
    return { text: (language === 'WGSL' ? new WgslText(from) : new GlslText(from)).write(), language };
  } catch (failure) {
    if (failure instanceof NotInWgsl) return { problem: failure.message };
    throw failure;
  }
}

interface Original {
  readonly text: string;
  readonly path: string;
  /** Stands behind names that hide others. */
  readonly mark: string;
  readonly read: ElaboratedSource;
  readonly library: Library;
}

/** Something of the text, in its order. */
interface Piece {
  readonly at: number;
  write(): void;
}

abstract class TextWriter {
  protected readonly out = new LineWriter();
  private readonly comments: readonly (Range & { readonly text: string })[];
  private told = 0;
  private readonly functionNames = new Map<string, string>();

  constructor(protected readonly from: Original) {
    this.comments = [...from.text.matchAll(/\/\*[^]*?\*\/|\/\/[^\n]*/g)].map((match) => ({
      from: match.index,
      to: match.index + match[0].length,
      text: match[0],
    }));
  }

  /** A name as the language may write it. */
  protected abstract clean(name: string): string;
  private readonly written = new Map<string, string>();
  private readonly taken = new Set<string>();

  /** The same name for the same, and another one for every other. */
  protected namesOf(name: string): string {
    const known = this.written.get(name);
    if (known !== undefined) return known;
    const wanted = this.clean(name);
    let free = wanted;
    for (let count = 2; this.taken.has(free); count++) free = `${wanted.slice(0, 190)}_${count}`;
    this.taken.add(free);
    this.written.set(name, free);
    return free;
  }

  protected abstract uniform(name: string, type: Type, index: number, fallback: readonly number[] | undefined): void;
  protected abstract struct(struct: StructType): void;
  protected abstract variable(global: Global): void;
  protected abstract function(declared: IrFunction): void;

  write(): string {
    const { module, own, uniforms, imports } = this.from.read;
    this.nameFunctions(own.flatMap((signature) => module.functions.get(signature) ?? []));
    const here = (origin: Origin | undefined): number | undefined => (origin?.path === this.from.path ? origin.range?.from : undefined);
    const pieces: Piece[] = [
      ...imports.map(({ name, from }) => ({ at: from, write: () => this.out.line(`import ${name};`) })),
      ...uniforms.map(({ name, type, nameRange, fallback, comment }, index) => ({
        at: comment?.range.to ?? nameRange.from,
        write: () => this.uniform(name, type, index, comment ? undefined : fallback),
      })),
    ];
    for (const struct of module.structs.values()) {
      const at = here(struct.origin);
      if (at !== undefined) pieces.push({ at, write: () => this.struct(struct) });
    }
    for (const global of module.globals.values()) {
      const at = here(global.origin);
      if (at !== undefined && (global.storage === 'private' || global.storage === 'out'))
        pieces.push({ at, write: () => this.variable(global) });
    }
    for (const signature of own) {
      const declared = module.functions.get(signature);
      const at = here(declared?.origin);
      if (declared && at !== undefined && declared.body.length > 0) pieces.push({ at, write: () => this.function(declared) });
    }
    let before: number | undefined;
    for (const piece of pieces.sort((a, b) => a.at - b.at)) {
      // A line is left empty where one is in the original.
      if (before !== undefined && /\n[ \t]*\r?\n/.test(this.from.text.slice(before, piece.at))) this.out.line('');
      before = piece.at;
      this.commentsBefore(piece.at);
      piece.write();
    }
    this.commentsBefore(this.from.text.length);
    return this.out.finish().text.replace(/\n{3,}/g, '\n\n');
  }

  /** Comments that stand before a place of the text and were not written yet. */
  protected commentsBefore(at: number): void {
    for (let next = this.comments[this.told]; next && next.from < at; next = this.comments[this.told]) {
      this.told++;
      for (const line of next.text.split('\n')) this.out.line(line.trim().replace(/^\*/, ' *'));
    }
  }

  protected readonly before = (origin: Origin | undefined): void => {
    if (origin?.path === this.from.path && origin.range) this.commentsBefore(origin.range.from);
  };

  /** Own overloads get names of their own in a language that has none. */
  private nameFunctions(functions: readonly IrFunction[]): void {
    const taken = new Set<string>();
    for (const { signature, name } of functions) {
      const wanted = this.plain(name);
      let free = wanted;
      for (let count = 2; this.singleNames && taken.has(free); count++) free = `${wanted}${count}`;
      taken.add(free);
      this.functionNames.set(signature, free);
    }
  }

  protected abstract readonly singleNames: boolean;

  /** The name in the text of something that hides one of the library's. */
  protected plain(irName: string): string {
    const { mark } = this.from;
    return this.namesOf(mark !== '' && irName.endsWith(`_${mark}`) ? irName.slice(0, -mark.length - 1) : irName);
  }

  protected readonly names: PrintedNames = {
    functionOf: (signature) =>
      this.functionNames.get(signature) ??
      this.from.library.module.functions.get(signature)?.name ??
      this.from.read.module.functions.get(signature)?.name ??
      signature,
    global: (name) => this.globalName(name),
    local: (name) => this.namesOf(name),
    struct: (name) => this.plain(name),
    field: (_, name) => this.namesOf(name),
  };

  private globalName(irName: string): string {
    const uniform = this.from.read.uniforms.find((each) => each.irName === irName);
    if (uniform) return this.namesOf(uniform.name);
    if (irName.startsWith('builtin.')) throw new NotInWgsl('a built-in variable of a stage, outside of a whole program');
    return this.plain(irName);
  }

  protected get functions(): ReadonlyMap<string, IrFunction> {
    return this.from.read.module.functions;
  }
}

class WgslText extends TextWriter {
  protected readonly singleNames = true;
  private bindings = 0;

  protected clean(name: string): string {
    return wgslName(name);
  }

  private type(type: Type): string {
    return wgslTypeName(type, ({ name }) => this.plain(name));
  }

  protected uniform(name: string, type: Type): void {
    const place = (): string => `@group(0) @binding(${this.bindings++})`;
    const own = this.namesOf(name);
    if (type.kind === 'sampler') {
      this.out.line(`${place()} var ${own}: ${this.type(type)};`);
      this.out.line(`${place()} var ${own}_sampler: sampler;`);
    } else if (typeName(type) === 'bool') this.out.line(`override ${own}: bool = false;`);
    else this.out.line(`${place()} var<uniform> ${own}: ${this.type(type)};`);
  }

  protected struct({ name, fields }: StructType): void {
    this.out.line(`struct ${this.plain(name)} {`);
    this.out.indented(() => fields.forEach((field) => this.out.line(`${this.namesOf(field.name)}: ${this.type(field.type)},`)));
    this.out.line('}');
  }

  protected variable({ name, type, storage, value }: Global): void {
    const start = value ? ` = ${printWgslValue(value, new WgslStatementWriter(EMPTY, this.context, this.out))}` : '';
    this.out.line(`var<${storage}> ${this.plain(name)}: ${this.type(type)}${start};`);
  }

  protected function(declared: IrFunction): void {
    new WgslStatementWriter(declared, this.context, this.out).write();
  }

  private get context(): ConstructorParameters<typeof WgslStatementWriter>[1] {
    return {
      names: this.names,
      functions: this.functions,
      samplerOf: (image) => `${this.samplerName(image)}_sampler`,
      before: this.before,
    };
  }

  private samplerName(image: string): string {
    const uniform = this.from.read.uniforms.find(({ irName }) => irName === image);
    return this.namesOf(uniform?.name ?? image);
  }
}

const EMPTY: IrFunction = { signature: '', name: '', parameters: [], result: { kind: 'void' }, body: [], origin: { path: '' } };

class GlslText extends TextWriter {
  protected readonly singleNames = false;

  protected clean(name: string): string {
    return writtenName(name);
  }

  protected uniform(name: string, type: Type, _: number, fallback: readonly number[] | undefined): void {
    if (fallback) this.out.line(`/** @value ${typeName(type) === 'bool' ? (fallback[0] ? 'on' : 'off') : fallback.join(' ')} */`);
    this.out.line(`uniform ${printDeclarator(type, this.namesOf(name), this.names)};`);
  }

  protected struct({ name, fields }: StructType): void {
    this.out.line(`struct ${this.plain(name)} {`);
    this.out.indented(() =>
      fields.forEach((field) => this.out.line(`${printDeclarator(field.type, this.namesOf(field.name), this.names)};`)),
    );
    this.out.line('};');
  }

  protected variable({ name, type, storage, flat, value }: Global): void {
    const start = value && storage === 'private' ? ` = ${printValue(value, this.names)}` : '';
    this.out.line(
      `${flat ? 'flat ' : ''}${storage === 'out' ? 'out ' : ''}${printDeclarator(type, this.plain(name), this.names)}${start};`,
    );
  }

  protected function(declared: IrFunction): void {
    this.out.line(`${functionHead(declared, this.names)} {`);
    this.out.indented(() => printStatements(declared.body, this.names, this.out, this.before));
    this.out.line('}');
  }
}
