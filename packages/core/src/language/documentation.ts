/**
 * What a documentation comment says about a function that is a node:
 *
 *     /**
 *      * Bands: light in flat steps.
 *      * Longer help, as many lines as wanted.
 *      * @kind bands 1            id and revision
 *      * @family Light
 *      * @words toon, cel         further words to find it by
 *      * @source Author, year, title
 *      * @inlet base colour "Colour" = 0.8 0.8 0.8: help
 *      * @inlet count number "Bands" = 3 in 1..12 by 1: help
 *      * @inlet facing normal "Normal" = surface normal: help
 *      * @outlet result "Light": help
 *      *\/
 *
 * An inlet's second word says what the value means; `= surface X` takes the value of kind X where nothing is connected.
 */
export interface Documentation {
  readonly title: string;
  readonly help: string;
  readonly tags: readonly DocumentationTag[];
}
export interface DocumentationTag {
  readonly name: string;
  readonly text: string;
}

export function readDocumentation(comment: string): Documentation {
  const lines = comment
    .replace(/^\/\*\*/, '')
    .replace(/\*\/$/, '')
    .split('\n')
    .map((line) => line.replace(/^\s*\*? ?/, '').trimEnd());
  const tags: { name: string; text: string }[] = [];
  const prose: string[] = [];
  for (const line of lines) {
    const tag = /^@(\w+)\s*(.*)$/.exec(line);
    const last = tags.at(-1);
    if (tag) tags.push({ name: tag[1] ?? '', text: tag[2] ?? '' });
    else if (last && line.trim()) last.text += ` ${line.trim()}`;
    else if (!last) prose.push(line);
  }
  const text = prose.join(' ').replace(/\s+/g, ' ').trim();
  const colon = text.indexOf(': ');
  const title = colon > 0 ? text.slice(0, colon) : text;
  const help = colon > 0 ? text.slice(colon + 2) : '';
  return { title, help: help.charAt(0).toUpperCase() + help.slice(1), tags };
}
