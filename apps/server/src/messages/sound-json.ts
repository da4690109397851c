import { isSoundText, soundText } from '@brelvin/core';
import { BadMessage } from './bad-message';

/** Values that one body may hold, counted with all that lies inside of it. */
export const MOST_VALUES = 600_000;
/** Levels of lists and objects inside one another. Documents have at most a dozen. */
export const DEEPEST = 64;

const LONGEST_SHOWN = 200;

/**
 * Looks through what a body holds once, before anything else walks it: that it is not endless, and that all of its text
 * can be kept. PostgreSQL keeps no NUL, and UTF-8 has no half of a surrogate pair.
 *
 * @throws BadMessage with the place of the first thing that can not be kept
 */
export function refuseUnsound(body: unknown): void {
  const waiting: { readonly inside: object; readonly depth: number; readonly place: Place | undefined }[] = [];
  let values = 0;
  const meet = (value: unknown, depth: number, above?: Place, key?: string): void => {
    if (++values > MOST_VALUES) refuse(undefined, `may hold at most ${MOST_VALUES.toLocaleString('en')} values`);
    if (typeof value === 'string') refuseText(value, 'has', above, key);
    if (typeof value !== 'object' || value === null) return;
    const place: Place | undefined = key === undefined ? above : { key, above };
    if (depth > DEEPEST) refuse(place, `lies too deep: at most ${DEEPEST} lists and objects may lie inside one another`);
    waiting.push({ inside: value, depth, place });
  };
  meet(body, 1);
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const { inside, depth, place } = next;
    const isList = Array.isArray(inside);
    for (const key in inside) {
      if (!isList) refuseText(key, 'has a name with', place, key);
      meet((inside as Readonly<Record<string, unknown>>)[key], depth + 1, place, key);
    }
  }
}

/** Keys up to the top, put together only where something is wrong. */
interface Place {
  readonly key: string;
  readonly above: Place | undefined;
}

function refuseText(text: string, has: string, above: Place | undefined, key?: string): void {
  if (isSoundText(text)) return;
  const what = text.includes('\0') ? 'a NUL character' : 'half of a surrogate pair, which is no character';
  refuse(key === undefined ? above : { key, above }, `${has} ${what}: no text may hold that; take it out`);
}

function refuse(place: Place | undefined, message: string): never {
  const keys: string[] = [];
  for (let at = place; at; at = at.above) keys.unshift(at.key);
  throw new BadMessage([{ field: soundText(keys.join('.')).slice(0, LONGEST_SHOWN) || 'body', message }]);
}
