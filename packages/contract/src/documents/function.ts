import { described, list, object, text, type TypeOf } from '../schema/schema';
import { head } from './head';
import { LONGEST_SOURCE } from './material';
import { codeName } from './names';

export const FUNCTION_VERSION = 1;

export const LIBRARY_FUNCTION = object({
  ...head('brelvin-function', FUNCTION_VERSION),
  name: described(codeName, 'The name by which it is imported; a function of this name is in the text.'),
  text: text(LONGEST_SOURCE),
  formerNames: described(list(codeName, 0, 64), 'What it was called before; these names go on working.'),
});

/** A function of the Library: shading code under the name by which it is imported. */
export interface LibraryFunction extends TypeOf<typeof LIBRARY_FUNCTION> {}
