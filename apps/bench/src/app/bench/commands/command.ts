/** Something that can be done on the Bench, by its name, a key, or a place in a menu. */
export interface Command {
  readonly id: string;
  readonly title: string;
  /** Further words it can be found by. */
  readonly words?: string;
  /** As shown: `Ctrl D`. */
  readonly keys?: string;
  /** Its key is heard while somebody writes, too. */
  readonly inText?: boolean;
  /** What its key does, for the list of keys; the title when absent. */
  readonly help?: string;
  /** Why it cannot be done now; nothing when it can. */
  readonly unable?: () => string | undefined;
  readonly run: () => void;
}

/** Gives the commands of one part of the Bench. Called once, in an injection context. */
export type CommandSource = () => readonly Command[];

/** A key that is no command: it belongs to a place, such as the graph or the code. */
export interface PlaceKey {
  readonly keys: string;
  readonly help: string;
}

/** Whether a key event is the one that is written so: `Ctrl Shift Z`, `F4`, `Home`. */
export function isKeys(event: KeyboardEvent, keys: string): boolean {
  const parts = keys.toLowerCase().split(' ');
  const key = parts.at(-1);
  const wants = (name: string): boolean => parts.slice(0, -1).includes(name);
  const command = event.ctrlKey || event.metaKey;
  // Characters that need Shift on some keyboards are written without it.
  const shifted = key !== undefined && /^[^a-z0-9]$/.test(key) ? true : event.shiftKey === wants('shift');
  // With Alt, some keyboards write another character: the key is then known by its place.
  const pressed = event.altKey && /^[0-9]$/.test(key ?? '') ? event.code === `Digit${key}` : event.key.toLowerCase() === key;
  return pressed && command === wants('ctrl') && shifted && event.altKey === wants('alt');
}

/** Commands that match what was typed, by the start of the title, of a word, or letters in order. */
export function findCommands(commands: readonly Command[], query: string): Command[] {
  const wanted = query.trim().toLowerCase();
  if (!wanted) return [...commands];
  return commands
    .map((command) => ({ command, score: score(command, wanted) }))
    .filter((each) => each.score > 0)
    .sort((a, b) => b.score - a.score)
    .map((each) => each.command);
}

function score({ title, words = '' }: Command, wanted: string): number {
  const text = title.toLowerCase();
  if (text.startsWith(wanted)) return 100;
  if (` ${text}`.includes(` ${wanted}`)) return 80;
  if (text.includes(wanted)) return 60;
  return words.toLowerCase().includes(wanted) ? 40 : 0;
}
