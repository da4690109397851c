import type { Type } from '../ir/types';
import type { Slot, SlotSource } from './slots';

/**
 * Slots in columns. A program of thousands of numbers has thousands of slots; as objects they would be most of the time
 * that a result takes from the worker to the page.
 */
export interface SlotTable {
  readonly types: readonly Type[];
  readonly fallbacks: readonly (readonly number[])[];
  readonly groups: readonly string[];
  /** Per slot: index of its type, offset, what its source is, index of its fallback, index of its group; −1 for none. */
  readonly columns: Int32Array;
  /** Per slot two words in one text: the node and inlet, the parameter, or the name. */
  readonly words: string;
}

const COLUMNS = 5;
/** Each kind of source by its number; one without a number does not compile. */
const NUMBER_OF_SOURCE: Readonly<Record<SlotSource['from'], number>> = {
  inlet: 0,
  factor: 1,
  parameter: 2,
  frame: 3,
  pointer: 4,
  halves: 5,
};
const SOURCES = Object.keys(NUMBER_OF_SOURCE) as readonly SlotSource['from'][];
const BETWEEN = '\n';
const SIGNED = 'signed';

export function packSlots(slots: readonly Slot[]): SlotTable {
  const types = new Numbering<Type>();
  const fallbacks = new Numbering<readonly number[]>();
  const groups = new Numbering<string>();
  const columns = new Int32Array(slots.length * COLUMNS);
  const words: string[] = [];
  slots.forEach(({ type, offset, source }, index) => {
    const group = 'home' in source ? source.home.group : undefined;
    columns.set(
      [
        types.of(type),
        offset,
        NUMBER_OF_SOURCE[source.from],
        source.from === 'inlet' ? fallbacks.of(source.fallback) : -1,
        group === undefined ? -1 : groups.of(group),
      ],
      index * COLUMNS,
    );
    if ('home' in source) words.push(source.home.node, source.inlet);
    else if (source.from === 'halves') words.push(source.parameter, source.signed ? SIGNED : '');
    else words.push(source.from === 'parameter' ? source.parameter : source.from === 'frame' ? source.name : '', '');
  });
  return { types: types.all, fallbacks: fallbacks.all, groups: groups.all, columns, words: words.join(BETWEEN) };
}

export function unpackSlots({ types, fallbacks, groups, columns, words }: SlotTable): Slot[] {
  const texts = words.split(BETWEEN);
  return Array.from({ length: columns.length / COLUMNS }, (_, index): Slot => {
    const at = index * COLUMNS;
    const type = types[columns[at] ?? 0];
    if (!type) throw new RangeError(`slot ${index} has no type`);
    const [first = '', second = ''] = [texts[index * 2], texts[index * 2 + 1]];
    const group = groups[columns[at + 4] ?? -1];
    const source = sourceOf(SOURCES[columns[at + 2] ?? 0], first, second, group, fallbacks[columns[at + 3] ?? -1] ?? []);
    return { name: `slot${index}`, type, offset: columns[at + 1] ?? 0, source };
  });
}

function sourceOf(
  from: SlotSource['from'] | undefined,
  first: string,
  second: string,
  group: string | undefined,
  fallback: readonly number[],
): SlotSource {
  if (from === 'parameter') return { from, parameter: first };
  if (from === 'halves') return { from, parameter: first, signed: second === SIGNED };
  if (from === 'frame') return { from, name: first };
  if (from === 'pointer') return { from };
  const home = group === undefined ? { node: first } : { group, node: first };
  if (from === 'factor') return { from, home, inlet: second };
  return { from: 'inlet', home, inlet: second, fallback };
}

/** Gives equal things the same number. */
class Numbering<T> {
  readonly all: T[] = [];
  private readonly known = new Map<string, number>();

  of(thing: T): number {
    const key = JSON.stringify(thing);
    const known = this.known.get(key);
    if (known !== undefined) return known;
    this.known.set(key, this.all.length);
    return this.all.push(thing) - 1;
  }
}
