import { either, list, number, record, tuple, type Schema } from '../schema/schema';
import { IDENTIFIER } from './names';

/** A value typed into an inlet: a number, or components in order (colours scene-linear, stops as r g b position). */
export type InletValue = number | readonly number[];

export const inletValue: Schema<InletValue> = either([number(), list(number(), 1, 32)], 'a number or a list of 1 to 32 numbers');

/** Stops of a gradient, one after the other: red, green, blue (scene-linear Rec. 709), place 0…1. */
export const stops = list(number(), 4, 32);

/** Things by their id. */
export const byId = <T>(of: Schema<T>, longest: number): Schema<Readonly<Record<string, T>>> => record(of, longest, IDENTIFIER);

/** Scene-linear Rec. 709. */
export const linearColour = tuple(number(0, 1e4), 3);
export const metres = number(-1e4, 1e4);
