import type { Origin, Range } from '../ir/origin';

/** Something that has a name in a text. */
export interface CodeSymbol {
  readonly kind: 'variable' | 'function' | 'struct' | 'field' | 'builtin' | 'type' | 'function of the Library';
  readonly name: string;
  /** What is declared, as one would write it: `float strength`, `vec3 rim(vec3 colour, float power)`. */
  readonly signature: string;
  /** Name of its type, where values have one. */
  readonly type?: string;
  /** Where its name is declared; built-ins are declared nowhere. */
  readonly declared?: Origin;
}

export interface SymbolUse extends Range {
  readonly symbol: CodeSymbol;
}

/** A variable that can be named from `from` to `to`. */
export interface VisibleVariable extends Range {
  readonly name: string;
  readonly type: string;
}

/** Collects what the names of one text stand for, while it is read. */
export class SymbolIndex {
  readonly uses: SymbolUse[] = [];
  readonly variables: VisibleVariable[] = [];

  use(range: Range, symbol: CodeSymbol): void {
    this.uses.push({ from: range.from, to: range.from + symbol.name.length, symbol });
  }

  visible(variable: VisibleVariable): void {
    this.variables.push(variable);
  }

  /** What stands at an offset; at the border between two names the one that begins there. */
  at(offset: number): SymbolUse | undefined {
    const touching = this.uses.filter(({ from, to }) => from <= offset && offset <= to);
    return touching.find(({ to }) => offset < to) ?? touching[0];
  }

  /** Every place in the text that means the same as the name there: also where it is declared. */
  same({ declared, name, kind }: CodeSymbol): Range[] {
    const key = (origin?: Origin): string => (origin?.range ? `${origin.path} ${origin.range.from}` : '');
    if (!declared?.range) return [];
    const places = this.uses.filter(({ symbol }) => symbol.kind === kind && symbol.name === name && key(symbol.declared) === key(declared));
    const found = new Map(places.map(({ from, to }) => [from, { from, to }]));
    return [...found.values()].sort((a, b) => a.from - b.from);
  }
}
