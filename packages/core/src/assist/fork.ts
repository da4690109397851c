import { renamedIn, tokensOf } from '../language';

/**
 * A function of a text, copied with its comment under a name of its own: the one that an offset lies in or behind, else the
 * first. The rest of what it calls stays where it is.
 */
export function forkOf(
  text: string,
  offset: number,
  freeName: (wanted: string) => string,
): { readonly name: string; readonly text: string } | { readonly problem: string } {
  const functions = functionsIn(text);
  const found = [...functions].reverse().find(({ from }) => from <= offset) ?? functions[0];
  if (!found) return { problem: 'There is no function here that could be forked.' };
  const { name } = found;
  const wanted = freeName(`my${name.charAt(0).toUpperCase()}${name.slice(1)}`);
  const struct = structOf(text, found.result);
  const body = renamedIn(text.slice(found.from, found.to), name, wanted).replace(/^ \* @(?:kind|given) .*\n/gm, '');
  return { name: wanted, text: `${struct}${body}\n` };
}

interface Found {
  readonly name: string;
  readonly result: string;
  readonly from: number;
  readonly to: number;
}

/** Functions with their comments, by their braces. */
function functionsIn(text: string): Found[] {
  const tokens = tokensOf(text);
  const found: Found[] = [];
  let depth = 0;
  let start = 0;
  tokens.forEach((token, index) => {
    if (token.text === '{') depth++;
    if (token.text === '}') depth--;
    if (token.text === '}' && depth === 0) {
      const head = tokens.slice(start, index);
      const [type, name, bracket] = head;
      if (type && name && bracket?.text === '(')
        found.push({ name: name.text, result: type.text, from: type.documentation?.from ?? type.from, to: token.to });
    }
    if (depth === 0 && (token.text === '}' || token.text === ';')) start = index + 1;
  });
  return found;
}

/** The struct that a function returns, where the same text declares it. */
function structOf(text: string, name: string): string {
  const match = new RegExp(`^struct ${name} \\{[^}]*\\};\\n`, 'm').exec(text);
  return match ? `${match[0]}\n` : '';
}
