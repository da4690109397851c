import { list, pattern, text, type Schema } from '../schema/schema';

export const LONGEST_NAME = 120;
export const LONGEST_TAG = 40;
export const MOST_TAGS = 32;

/** What a name of ours looks like: it stands in paths and keys, so no dots, and nothing that JavaScript objects treat specially. */
export const IDENTIFIER = '^(?!__proto__$|constructor$|prototype$)[A-Za-z][A-Za-z0-9_-]{0,63}$';
/** What a name in shading code looks like. */
export const CODE_NAME = '^[A-Za-z_][A-Za-z0-9_]{0,63}$';

export const identifier = pattern(IDENTIFIER, 64);
export const codeName = pattern(CODE_NAME, 64, 'a name as in shading code: letters, digits and "_"');
export const documentId = pattern('^[A-Za-z0-9_-]{1,64}$', 64, '1 to 64 letters, digits, "-" or "_"');
/** SHA-256 of a file of the workspace. */
export const assetAddress = pattern('^[0-9a-f]{64}$', 64, 'a SHA-256 in hexadecimal');

export const name = text(LONGEST_NAME, 1);
export const tags: Schema<readonly string[]> = list(text(LONGEST_TAG, 1), 0, MOST_TAGS);
