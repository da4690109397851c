import type { Cost } from '@brelvin/core';

const NUMBERS = new Intl.NumberFormat('en');

/** A whole number with its thousands apart. */
export function counted(value: number): string {
  return NUMBERS.format(Math.round(value));
}

export function costWords({ instructions, reads }: Cost): string {
  return `${counted(instructions)} instruction${instructions === 1 ? '' : 's'}, ${counted(reads)} read${reads === 1 ? '' : 's'}`;
}

/** Milliseconds, to what can be told apart. */
export function msWords(milliseconds: number): string {
  return `${milliseconds >= 100 ? Math.round(milliseconds) : milliseconds >= 10 ? milliseconds.toFixed(1) : milliseconds.toFixed(2)} ms`;
}
