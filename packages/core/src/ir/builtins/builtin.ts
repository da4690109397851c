export type Numbers = readonly number[];

/** What is known of a built-in function of the language, whoever asks. */
export interface BuiltinFunction {
  /**
   * `F`, `I`, `U`, `B` stand for the scalar or a vector of that scalar, all of one size; `M` for a matrix. Other words are
   * type names.
   */
  readonly signatures: readonly string[];
  readonly help: string;
  /** Its values of known ones, lists of components; absent where it needs a device, or nobody evaluates it yet. */
  readonly evaluate?: (...args: Numbers[]) => number[];
  /** Of so many first arguments: where a component of all of them is 1, it is 1 of what it gives, whatever the others are. */
  readonly keepsOne?: number;
  /** It works component by component, so there must be several (section 8.7). */
  readonly vectorsOnly?: boolean;
  /** Which argument is an offset in texels, a constant. */
  readonly offset?: number;
  /** Which argument it writes to. */
  readonly writes?: number;
  /** What it gives is in an image. */
  readonly readsImage?: boolean;
  /**
   * What it takes from the neighbouring pixels, and so only defined where all of them come along: by how much a value differs
   * there, or which level of an image fits.
   */
  readonly neighbours?: 'difference' | 'level';
}

export type BuiltinSection = Readonly<Record<string, BuiltinFunction>>;

const NOTHING: Numbers = [];

/** A component; a scalar stands for as many as are asked for. */
function at(list: Numbers, index: number): number {
  return (list.length === 1 ? list[0] : list[index]) ?? 0;
}

/** Component by component. */
export function byOne(work: (x: number) => number): (a?: Numbers) => number[] {
  return (a = NOTHING) => a.map((each) => work(each));
}

/** Component by component; a scalar stands for as many as there are on the other side. */
export function byTwo(work: (x: number, y: number) => number): (a?: Numbers, b?: Numbers) => number[] {
  return (a = NOTHING, b = NOTHING) => {
    const size = Math.max(a.length, b.length);
    const result: number[] = [];
    for (let index = 0; index < size; index++) result.push(work(at(a, index), at(b, index)));
    return result;
  };
}

export function byThree(work: (x: number, y: number, z: number) => number): (a?: Numbers, b?: Numbers, c?: Numbers) => number[] {
  return (a = NOTHING, b = NOTHING, c = NOTHING) => {
    const size = Math.max(a.length, b.length, c.length);
    const result: number[] = [];
    for (let index = 0; index < size; index++) result.push(work(at(a, index), at(b, index), at(c, index)));
    return result;
  };
}
