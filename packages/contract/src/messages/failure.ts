import { LONGEST_NAME } from '../documents/names';
import { described, list, object, optional, text, type TypeOf } from '../schema/schema';
import { STORED_STEP, stepNumber } from './steps';

const words = text(100_000);
const MOST = 1000;

/** What every failure is answered by. */
export const FAILURE = object({
  error: described(text(100), 'For programs.'),
  message: described(words, 'For people.'),
  fields: optional(list(object({ field: words, message: words }), 0, MOST), 'What is wrong with the request.'),
  problems: optional(list(object({ place: words, message: words }), 0, MOST), 'What is wrong with the document.'),
  step: optional(stepNumber, 'Of a stale save: the last step.'),
  missed: optional(list(STORED_STEP, 0, Number.MAX_SAFE_INTEGER), 'Of a stale save: the steps that it does not know.'),
  name: optional(text(LONGEST_NAME), 'Of a deleted document.'),
});

export interface Failure extends TypeOf<typeof FAILURE> {}
