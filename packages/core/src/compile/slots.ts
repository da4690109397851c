import type { InletValue } from '@brelvin/contract';
import { liveValue } from '../document/live-input';
import type { MaterialSource } from '../document/material';
import { constant, construct, float, global, swizzle } from '../ir/build';
import type { Expression, Global, UniformBlock } from '../ir/ir';
import { PORTABLE_LIMITS } from '../ir/limits';
import { FLOAT, INT, VEC4, componentCount, type Type } from '../ir/types';
import type { NodeHome } from './flatten';

/** Where a slot's numbers come from. */
export type SlotSource =
  | { readonly from: 'inlet'; readonly home: NodeHome; readonly inlet: string; readonly fallback: readonly number[] }
  /** What a ribbon's value is multiplied by. */
  | { readonly from: 'factor'; readonly home: NodeHome; readonly inlet: string }
  | { readonly from: 'parameter'; readonly parameter: string }
  /** A parameter's whole number of 32 bits as its halves: a float holds 24 bits exactly. */
  | { readonly from: 'halves'; readonly parameter: string; readonly signed: boolean }
  /** 0…1: whether the pointer is over the part. */
  | { readonly from: 'pointer' }
  /** Computed from other slots and the clock, once per frame. */
  | { readonly from: 'frame'; readonly name: string };

/** A place in the material's uniform block; `offset` in words. */
export interface Slot {
  readonly name: string;
  readonly type: Type;
  readonly offset: number;
  readonly source: SlotSource;
}

export const MATERIAL_WORDS = PORTABLE_LIMITS.blockWords;
export const MATERIAL_BLOCK = 'Material';
/** The only member of the block, as devices have it. */
export const MATERIAL_VALUES = 'materialValues';

/**
 * Hands out places in the block. Numbers are packed four to a vec4, each where a member of its type might stand by std140. While a
 * program is being built a slot is a global of its own; `packedRead` turns it into a read from the block.
 */
export class SlotAllocator {
  readonly slots: Slot[] = [];
  private readonly bySource = new Map<string, Slot>();
  private words = 0;
  /** Free words behind earlier slots, by how many. */
  private readonly gaps: { offset: number; size: number }[] = [];

  /** A slot's global, or nothing when the block is full. */
  allocate(type: Type, source: SlotSource): Expression | undefined {
    const key = sourceKey(source);
    const known = this.bySource.get(key);
    if (known) return global(known.name, type);
    const size = wordsOf(type);
    const offset = this.place(size);
    if (offset === undefined) return undefined;
    const slot: Slot = { name: `slot${this.slots.length}`, type, offset, source };
    this.slots.push(slot);
    this.bySource.set(key, slot);
    return global(slot.name, type);
  }

  private place(size: number): number | undefined {
    for (const [index, { offset, size: free }] of this.gaps.entries()) {
      if (size > 2) break;
      const start = Math.ceil(offset / size) * size;
      const behind = offset + free - start - size;
      if (behind < 0) continue;
      const left = [
        { offset, size: start - offset },
        { offset: start + size, size: behind },
      ];
      this.gaps.splice(index, 1, ...left.filter((each) => each.size > 0));
      return start;
    }
    if (this.words + Math.ceil(size / 4) * 4 > MATERIAL_WORDS) return undefined;
    const offset = this.words;
    this.words += Math.ceil(size / 4) * 4;
    if (size % 4 !== 0) this.gaps.push({ offset: offset + size, size: 4 - (size % 4) });
    return offset;
  }

  block(): UniformBlock {
    const length = Math.max(1, this.words / 4);
    return { name: MATERIAL_BLOCK, members: [{ name: MATERIAL_VALUES, type: { kind: 'array', element: VEC4, length } }] };
  }

  /** The block's only member, to be declared where the program is linked. */
  blockGlobal(): Global {
    const [member] = this.block().members;
    return { name: MATERIAL_VALUES, type: member?.type ?? VEC4, storage: 'uniform', block: MATERIAL_BLOCK };
  }

  /** How programs read each slot, by its name. */
  packedReads(): ReadonlyMap<string, Expression> {
    const values = global(MATERIAL_VALUES, this.blockGlobal().type);
    return new Map(this.slots.map((slot) => [slot.name, this.packedRead(slot, values)]));
  }

  private packedRead(slot: Slot, values: Expression): Expression {
    const word = (index: number): Expression => ({ op: 'index', object: values, index: constant(INT, [index]), type: VEC4 });
    const first = Math.floor(slot.offset / 4);
    if (slot.type.kind === 'array')
      return construct(
        slot.type,
        Array.from({ length: slot.type.length }, (_, index) => word(first + index)),
      );
    const size = componentCount(slot.type);
    const start = slot.offset % 4;
    return size === 4
      ? word(first)
      : swizzle(
          word(first),
          Array.from({ length: size }, (_, index) => start + index),
        );
  }
}

function sourceKey(source: SlotSource): string {
  if (source.from === 'inlet' || source.from === 'factor')
    return `${source.from} ${source.home.group ?? ''}/${source.home.node}.${source.inlet}`;
  if (source.from === 'pointer') return source.from;
  return source.from === 'frame' ? `frame ${source.name}` : `${source.from} ${source.parameter}`;
}

/** How many words a number of a type takes up. */
export function wordsOf(type: Type): number {
  return type.kind === 'array' ? type.length * wordsOf(type.element) : componentCount(type);
}

/** The numbers of a typed-in value, brought to the size of the slot: a lone number spreads, stops repeat the last. */
export function slotNumbers(value: InletValue, type: Type): readonly number[] {
  const numbers = typeof value === 'number' ? [value] : value;
  const size = wordsOf(type);
  if (type.kind === 'array') {
    const last = numbers.slice(-4);
    return Array.from({ length: size }, (_, index) => numbers[index] ?? last[index % 4] ?? 0);
  }
  if (numbers.length === 1) return Array<number>(size).fill(numbers[0] ?? 0);
  return Array.from({ length: size }, (_, index) => numbers[index] ?? 0);
}

/** Numbers that come from outside of the document: the clock, the pointer, a part's own values of parameters. */
export interface LiveValues {
  readonly seconds: number;
  /** 0…1: whether the pointer is over the part, eased over so many seconds. */
  readonly pointer: (period: number) => number;
  readonly overrides: Readonly<Record<string, InletValue>>;
}

/** Seconds in which a node follows the pointer. */
const POINTER_EASE = 0.25;

export const AT_REST: LiveValues = { seconds: 0, pointer: () => 0, overrides: {} };

/** The numbers a slot takes from the document; nothing for one that is computed. */
export function documentNumbers(
  source: SlotSource,
  type: Type,
  material: MaterialSource,
  live: LiveValues = AT_REST,
): readonly number[] | undefined {
  if (source.from === 'frame') return undefined;
  if (source.from === 'pointer') return [live.pointer(POINTER_EASE)];
  if (source.from === 'parameter') return slotNumbers(parameterValue(source.parameter, material, live), type);
  if (source.from === 'halves') {
    const [number = 0] = slotNumbers(parameterValue(source.parameter, material, live), FLOAT);
    return halvesOf(number, source.signed);
  }
  const { group, node } = source.home;
  const graph = group === undefined ? material.surface : material.groups[group]?.graph;
  const found = graph?.nodes[node];
  if (source.from === 'factor') return slotNumbers(found?.factors?.[source.inlet] ?? 1, type);
  return slotNumbers(found?.values[source.inlet] ?? source.fallback, type);
}

function parameterValue(id: string, material: MaterialSource, live: LiveValues): InletValue {
  const parameter = material.parameters[id];
  const moved = parameter?.live && liveValue(parameter, parameter.live, live.seconds, live.pointer);
  return live.overrides[id] ?? moved ?? parameter?.value ?? 0;
}

/** The nearest whole number that 32 bits hold, as high · 65536 + low with low = 0…65535. */
function halvesOf(number: number, signed: boolean): readonly number[] {
  const [least, most] = signed ? [-(2 ** 31), 2 ** 31 - 1] : [0, 2 ** 32 - 1];
  const whole = Number.isNaN(number) ? 0 : Math.min(Math.max(Math.round(number), least), most);
  const high = Math.floor(whole / 0x10000);
  return [high, whole - high * 0x10000];
}

/** The same numbers as a constant, for what found no place in the block. */
export function constantOf(numbers: readonly number[], type: Type): Expression {
  if (type.kind !== 'array') return type === FLOAT ? float(numbers[0] ?? 0) : constant(type, numbers);
  return construct(
    type,
    Array.from({ length: type.length }, (_, index) => constant(VEC4, numbers.slice(index * 4, index * 4 + 4))),
  );
}
