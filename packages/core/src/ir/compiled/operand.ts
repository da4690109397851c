import type { ScalarName } from '../types';
import { kindOf } from './flat';
import { CODE, constantOf, unsigned } from './encoding';

/** A number that is at hand: known now, or in a variable. */
export type Operand = Known | Cell;
export interface Known {
  readonly scalar: ScalarName;
  readonly value: number;
}
/** A variable of one number. */
export interface Cell {
  readonly scalar: ScalarName;
  readonly scope: 'local' | 'global';
  readonly index: number;
}

export function isCell(operand: Operand): operand is Cell {
  return 'index' in operand;
}

export function isSame(one: Operand, other: Operand): boolean {
  return isCell(one) && isCell(other) && one.scope === other.scope && one.index === other.index;
}

export function known(scalar: ScalarName, value: number): Known {
  return { scalar, value };
}

/** Onto the stack. */
export function read(operand: Operand): number[] {
  if (!isCell(operand)) return constantOf(kindOf(operand.scalar), operand.value);
  return [operand.scope === 'local' ? CODE.localGet : CODE.globalGet, ...unsigned(operand.index)];
}

/** From the stack. */
export function write({ scope, index }: Cell): number[] {
  return [scope === 'local' ? CODE.localSet : CODE.globalSet, ...unsigned(index)];
}
