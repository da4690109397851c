import { KIND_NAMES } from '../documents/kinds';
import { LONGEST_SOURCE } from '../documents/material';
import { codeName, documentId, LONGEST_NAME } from '../documents/names';
import { list, object, oneOf, text, type TypeOf } from '../schema/schema';
import { stepNumber } from './steps';

const ANY_NUMBER_OF = Number.MAX_SAFE_INTEGER;

export const FUNCTION_ADDRESS = object({ name: codeName });

export const STORED_FUNCTION = object({
  id: documentId,
  step: stepNumber,
  name: codeName,
  text: text(LONGEST_SOURCE),
  formerNames: list(codeName, 0, 64),
});
export const FUNCTIONS = object({ functions: list(STORED_FUNCTION, 0, ANY_NUMBER_OF) });
export const FUNCTION_USER = object({ id: documentId, kind: oneOf(KIND_NAMES), name: text(LONGEST_NAME) });
export const FUNCTION_USERS = object({ users: list(FUNCTION_USER, 0, ANY_NUMBER_OF) });

/** A function of the Library with its text. */
export interface StoredFunction extends TypeOf<typeof STORED_FUNCTION> {}

/** A document that asks for a function, or is seen with another one. */
export interface FunctionUser extends TypeOf<typeof FUNCTION_USER> {}
