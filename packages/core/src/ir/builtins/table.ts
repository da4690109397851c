import { ANGLES } from './angles';
import type { BuiltinFunction, BuiltinSection } from './builtin';
import { COMMON } from './common';
import { DIFFERENCES } from './differences';
import { EXPONENTIALS } from './exponentials';
import { GEOMETRY } from './geometry';
import { MATRICES } from './matrices';
import { PACKING } from './packing';
import { RELATIONS } from './relations';
import { TEXTURES } from './textures';

const SECTIONS: readonly (readonly [section: string, functions: BuiltinSection])[] = [
  ['8.1', ANGLES],
  ['8.2', EXPONENTIALS],
  ['8.3', COMMON],
  ['8.4', PACKING],
  ['8.5', GEOMETRY],
  ['8.6', MATRICES],
  ['8.7', RELATIONS],
  ['8.8', TEXTURES],
  ['8.9', DIFFERENCES],
];

/** The built-in functions, with the section of the GLSL ES 3.00 specification in which each stands. */
export const BUILTIN_FUNCTIONS: ReadonlyMap<string, BuiltinFunction & { readonly section: string }> = new Map(
  SECTIONS.flatMap(([section, functions]) => Object.entries(functions).map(([name, each]) => [name, { ...each, section }] as const)),
);

/** Whether what it gives differs from pixel to pixel, whatever it is given. */
export function isPerPixel(name: string): boolean {
  const { readsImage, neighbours } = BUILTIN_FUNCTIONS.get(name) ?? {};
  return readsImage === true || neighbours !== undefined;
}

/** Whether it is only defined where all neighbouring pixels come along. */
export function needsNeighbours(name: string): boolean {
  return BUILTIN_FUNCTIONS.get(name)?.neighbours !== undefined;
}

/** Whether it tells by how much a value differs between neighbouring pixels. */
export function isDifference(name: string): boolean {
  return BUILTIN_FUNCTIONS.get(name)?.neighbours === 'difference';
}

/**
 * A built-in function on known values.
 *
 * @param isFloat whether the result is rounded to 32-bit float
 * @param args of functions of matrices, behind them the number of columns of the first
 * @returns undefined for what needs a device: textures
 */
export function evaluateBuiltin(name: string, args: readonly (readonly number[])[], isFloat: boolean): number[] | undefined {
  const raw = BUILTIN_FUNCTIONS.get(name)?.evaluate?.(...args);
  return isFloat ? raw?.map(Math.fround) : raw;
}
