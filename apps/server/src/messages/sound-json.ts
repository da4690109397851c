import { isSoundText, soundText } from '@brelvin/core';
import { BadMessage } from './bad-message';

const LONGEST_SHOWN = 200;

/**
 * Looks whether all text of a value can be kept: PostgreSQL keeps no NUL, and UTF-8 has no half of a surrogate pair.
 *
 * @throws BadMessage with the place of the first text that cannot be kept
 */
export function refuseUnsound(value: unknown): void {
  const look = (each: unknown, place: readonly string[]): void => {
    if (typeof each === 'string') refuseText(each, 'has', place);
    if (typeof each !== 'object' || each === null) return;
    for (const [key, inner] of Object.entries(each)) {
      const at = [...place, key];
      refuseText(key, 'has a name with', at);
      look(inner, at);
    }
  };
  look(value, []);
}

function refuseText(text: string, has: string, place: readonly string[]): void {
  if (isSoundText(text)) return;
  const what = text.includes('\0') ? 'a NUL character' : 'half of a surrogate pair, which is no character';
  const field = soundText(place.join('.')).slice(0, LONGEST_SHOWN) || 'body';
  throw new BadMessage([{ field, message: `${has} ${what}: no text may hold that; take it out` }]);
}
