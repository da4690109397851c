import type { Json } from '../json';
import { anything, list, moment, object, oneOf, optional, text, whole, type TypeOf } from '../schema/schema';
import { documentId } from '../documents/names';

/** The largest number of a step: what PostgreSQL keeps as an integer. */
export const LARGEST_STEP = 2 ** 31 - 1;

export const stepNumber = whole(0, LARGEST_STEP);

export const CHANGE = object({
  path: list(text(200), 1, 16),
  value: optional(anything<Json>(), 'Nothing stands there any more without one.'),
});

const transactionFields = {
  id: documentId,
  label: text(200, 1),
  gesture: optional(text(64)),
  direction: optional(oneOf(['undo', 'redo'])),
  changes: list(CHANGE, 1, 20_000),
};

export const TRANSACTION = object(transactionFields);
export const STORED_STEP = object({ step: stepNumber, ...transactionFields, at: moment });

/** Steps to be added behind a known one. */
export const APPEND = object({ after: stepNumber, steps: list(TRANSACTION, 1, 1000) });

/** Sets the value at a path of keys, or removes it when there is no value. Lists are replaced whole. */
export interface Change extends TypeOf<typeof CHANGE> {}

/**
 * One edit of one document, the unit of undo, saving and telling other windows. `id` is chosen by whoever makes it: saving
 * the same one again changes nothing. `label` says in words what was done, for the history: "Connect Bands". Transactions of
 * one gesture (a drag) count as one step. `direction`: takes the step before back, or does it again.
 */
export interface Transaction extends TypeOf<typeof TRANSACTION> {}

/** A transaction as the server keeps it: with its number, and when it came. */
export interface StoredStep extends TypeOf<typeof STORED_STEP> {}

export interface Append extends TypeOf<typeof APPEND> {}
