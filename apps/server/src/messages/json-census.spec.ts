import { BadMessage } from './bad-message';
import { DEEPEST, MOST_INSIDE, MOST_VALUES, refuseEndless } from './json-census';

const look = (text: string): void => refuseEndless(Buffer.from(text));
const nested = (depth: number): string => '['.repeat(depth) + ']'.repeat(depth);
const list = (entries: number): string => `[${Array.from({ length: entries }, () => 0).join()}]`;

describe('refuseEndless', () => {
  it('bounds depth, entries of one list, and all values', () => {
    look(nested(DEEPEST));
    expect(() => look(nested(DEEPEST + 1))).toThrowError(BadMessage, /lies too deep/);
    look(list(MOST_INSIDE));
    expect(() => look(list(MOST_INSIDE + 1))).toThrowError(BadMessage, /of more than 50,000 entries/);
    const lists = MOST_VALUES / 25_000;
    look(`[${Array.from({ length: lists - 1 }, () => list(25_000)).join()}]`);
    expect(() => look(`[${Array.from({ length: lists + 1 }, () => list(25_000)).join()}]`)).toThrowError(
      BadMessage,
      /at most 250,000 values/,
    );
  });

  it('counts each list anew, and nothing that stands in texts', () => {
    look(`[${Array.from({ length: 4 }, () => list(MOST_INSIDE)).join()}]`);
    look(JSON.stringify({ code: '[{,'.repeat(200_000), 'say "[[': '\\', slash: '\\"[', end: ['\\\\'] }));
    expect(() => look(`{"a\\\\":${nested(DEEPEST + 1)}}`)).toThrowError(BadMessage);
  });

  it('leaves what is not JSON to the parser', () => {
    for (const text of ['', '"open', ']]]]', '{"a":', '\\', '"\\']) look(text);
    expect(() => look('}'.repeat(10))).not.toThrow();
  });
});
