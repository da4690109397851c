import { BadMessage } from './bad-message';

/** What one body may hold; counted before it is parsed, which for endless objects takes seconds. */
export const MOST_VALUES = 250_000;
/** Entries of one list or fields of one object. */
export const MOST_INSIDE = 50_000;
/** Levels of lists and objects inside one another. Documents have at most a dozen. */
export const DEEPEST = 64;

const [QUOTE, BACKSLASH, COMMA] = [0x22, 0x5c, 0x2c];
const [OPEN_LIST, CLOSE_LIST, OPEN_OBJECT, CLOSE_OBJECT] = [0x5b, 0x5d, 0x7b, 0x7d];

/**
 * Counts what a JSON text holds, in one pass over its bytes. Text that is not JSON passes, or not: the parser has the last
 * word.
 *
 * @throws BadMessage for more values, longer lists or deeper nesting than any body has
 */
export function refuseEndless(text: Buffer): void {
  const commas = new Uint32Array(DEEPEST + 1);
  let [depth, values] = [0, 0];
  for (let at = 0; at < text.length; at++) {
    switch (text[at]) {
      case QUOTE:
        at = endOfString(text, at);
        break;
      case OPEN_LIST:
      case OPEN_OBJECT:
        if (++depth > DEEPEST) refuse(`lies too deep: at most ${DEEPEST} lists and objects may lie inside one another`);
        commas[depth] = 0;
        values++;
        break;
      case CLOSE_LIST:
      case CLOSE_OBJECT:
        if (depth > 0) depth--;
        break;
      case COMMA:
        values++;
        commas[depth] = (commas[depth] ?? 0) + 1;
        if ((commas[depth] ?? 0) >= MOST_INSIDE) refuse(`has a list or an object of more than ${counted(MOST_INSIDE)} entries`);
    }
    if (values > MOST_VALUES) refuse(`may hold at most ${counted(MOST_VALUES)} values`);
  }
}

/** Where a string ends that begins at a place: at a quote with an even number of backslashes before it. */
function endOfString(text: Buffer, start: number): number {
  for (let end = text.indexOf(QUOTE, start + 1); end >= 0; end = text.indexOf(QUOTE, end + 1)) {
    let escape = end - 1;
    while (text[escape] === BACKSLASH) escape--;
    if ((end - escape) % 2 === 1) return end;
  }
  return text.length;
}

function refuse(message: string): never {
  throw new BadMessage([{ field: 'body', message }]);
}

function counted(count: number): string {
  return count.toLocaleString('en');
}
