import type { Library } from '../../../catalogue/library';
import type { Global, IrFunction } from '../../../ir/ir';
import type { Origin, Range } from '../../../ir/origin';
import type { StructType, Type } from '../../../ir/types';
import { LineWriter, NotInWgsl, type ElaboratedSource, type EmittedSource, type PrintedNames } from '../../../language';

/** A text that is turned over, as it was read. */
export interface Original {
  readonly text: string;
  readonly path: string;
  /** Stands behind names that hide others. */
  readonly mark: string;
  readonly read: ElaboratedSource;
  readonly library: Library;
  /** Constants outside of functions are written though their values stand wherever they are used: they are regions’ names. */
  readonly namesConstants?: boolean;
}

/** Something of the text, in its order. */
interface Piece {
  readonly at: number;
  write(): void;
}

/** Writes what was read of a text in another language, in the order of the text, with its comments. */
export abstract class TextWriter {
  protected readonly out = new LineWriter();
  private readonly comments: readonly (Range & { readonly text: string })[];
  private told = 0;
  private readonly functionNames = new Map<string, string>();

  /** @param table names that were given already, where another stage stands in the same text */
  constructor(
    protected readonly from: Original,
    protected readonly table: NameTable = new NameTable(),
  ) {
    this.comments = [...from.text.matchAll(/\/\*[^]*?\*\/|\/\/[^\n]*/g)].map((match) => ({
      from: match.index,
      to: match.index + match[0].length,
      text: match[0],
    }));
  }

  /** A name as the language may write it. */
  protected abstract clean(name: string): string;

  /** The same name for the same, and another one for every other. */
  protected namesOf(name: string): string {
    return this.table.nameOf(name, (each) => this.clean(each));
  }

  protected abstract uniform(name: string, type: Type, index: number, fallback: readonly number[] | undefined): void;
  protected abstract struct(struct: StructType): void;
  protected abstract variable(global: Global): void;
  protected abstract function(declared: IrFunction): void;

  /** Whether a variable is declared where it stands. */
  protected declares({ storage }: Global): boolean {
    return storage === 'private' || storage === 'out' || (storage === 'const' && this.from.namesConstants === true);
  }

  /** A comment behind a declaration, on the same line. */
  protected commentBehind(origin: Origin | undefined): string {
    const next = this.comments[this.told];
    const at = origin?.path === this.from.path ? origin.range?.from : undefined;
    if (at === undefined || !next?.text.startsWith('//') || this.from.text.slice(at, next.from).includes('\n')) return '';
    this.told++;
    return ` ${next.text}`;
  }

  protected ownFunctions(): readonly IrFunction[] {
    const { module, own } = this.from.read;
    return own.flatMap((signature) => module.functions.get(signature) ?? []);
  }

  write(): string {
    return this.written().text;
  }

  /** The text, and where in the original each of its lines comes from. */
  written(): EmittedSource {
    const { module, uniforms, imports } = this.from.read;
    this.nameFunctions(this.ownFunctions());
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
      if (at !== undefined && this.declares(global)) pieces.push({ at, write: () => this.variable(global) });
    }
    for (const declared of this.ownFunctions()) {
      const at = here(declared.origin);
      if (at !== undefined && declared.body.length > 0) pieces.push({ at, write: () => this.function(declared) });
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
    return this.out.finishTidy();
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
    for (const { signature, name } of functions) {
      const wanted = this.plain(name);
      this.functionNames.set(signature, this.singleNames ? this.table.freeFunction(wanted) : wanted);
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

  protected globalName(irName: string): string {
    const uniform = this.from.read.uniforms.find((each) => each.irName === irName);
    if (uniform) return this.namesOf(uniform.name);
    if (irName.startsWith('builtin.')) throw new NotInWgsl('a built-in variable of a stage, outside of a whole program');
    return this.plain(irName);
  }

  protected get functions(): ReadonlyMap<string, IrFunction> {
    return this.from.read.module.functions;
  }
}

/** Names that were given in a text. */
export class NameTable {
  private readonly written = new Map<string, string>();
  private readonly taken = new Set<string>();
  private readonly functions = new Set<string>();
  /** What was declared outside of functions, with its words: another stage need not declare the same again. */
  readonly declared = new Map<string, string>();
  /** Of uniforms, images and samplers, counted through. */
  bindings = 0;

  nameOf(name: string, clean: (name: string) => string): string {
    const known = this.written.get(name);
    if (known !== undefined) return known;
    const wanted = clean(name);
    let free = wanted;
    for (let count = 2; this.taken.has(free); count++) free = `${wanted.slice(0, 190)}_${count}`;
    this.taken.add(free);
    this.written.set(name, free);
    return free;
  }

  /** A name for a function in a language where each has one of its own. */
  freeFunction(wanted: string): string {
    let free = wanted;
    for (let count = 2; this.functions.has(free); count++) free = `${wanted}${count}`;
    this.functions.add(free);
    return free;
  }
}
