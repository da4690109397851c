import { type Change, isJsonObject, type Json } from '@brelvin/contract';

/** The path leads through something that is not there. */
export class UnfitChange extends Error {}

/**
 * The document after the changes; everything they leave alone is shared with the document before. Costs one copy of
 * each object that is changed, however many changes it takes.
 *
 * @throws UnfitChange
 */
export function applyChanges<T>(document: T, changes: readonly Change[]): T {
  const draft = new Draft(document as Json);
  for (const change of changes) draft.put(change);
  return draft.value as T;
}

/**
 * Changes that take the document after `changes` back to `document`. Copies nothing where they do not lie inside one another.
 *
 * @throws UnfitChange
 */
export function invertChanges(document: unknown, changes: readonly Change[]): Change[] {
  const apart = !someNest(changes);
  const inverse: Change[] = [];
  const draft = new Draft(document as Json);
  for (const change of changes) {
    const before = draft.take(change.path);
    inverse.push(before === undefined ? { path: change.path } : { path: change.path, value: before });
    if (apart) draft.writes(change);
    else draft.put(change);
  }
  return inverse.reverse();
}

type Fields = Record<string, Json>;

/** A document while it is changed: objects are copied before they are first written, and only then. */
class Draft {
  private readonly copies = new Set<unknown>();

  constructor(public value: Json) {}

  put(change: Change): void {
    if (!this.writes(change)) return;
    const { path, value } = change;
    const last = path.at(-1) ?? '';
    const target = this.openAt(path.slice(0, -1));
    if (value === undefined) delete target[last];
    else write(target, last, value);
  }

  /**
   * Whether a change changes anything. Also where it does not, the way there must exist.
   *
   * @throws UnfitChange
   */
  writes({ path, value }: Change): boolean {
    if (path.length === 0) throw new UnfitChange('a change needs a path');
    const target = valueAt(this.value, path.slice(0, -1));
    if (target !== undefined && valueAt(this.value, path) === value) return false;
    if (isJsonObject(target)) return true;
    const end = path.findIndex((_, depth) => !isJsonObject(valueAt(this.value, path.slice(0, depth + 1))));
    throw new UnfitChange(`there is nothing at ${path.slice(0, end + 1).join('.')}`);
  }

  /** What stands at a path, as it is now and stays. */
  take(path: readonly string[]): Json | undefined {
    const found = valueAt(this.value, path);
    if (this.copies.has(found)) this.copies.clear();
    return found;
  }

  /** The object at a path, with everything above it, as copies that may be written. */
  private openAt(path: readonly string[]): Fields {
    let target = this.open(this.value as Fields);
    this.value = target;
    for (const key of path) {
      const opened = this.open(target[key] as Fields);
      write(target, key, opened);
      target = opened;
    }
    return target;
  }

  private open(object: Fields): Fields {
    if (this.copies.has(object)) return object;
    const copy = { ...object };
    this.copies.add(copy);
    return copy;
  }
}

/** Sets a field of its own, whatever it is called. */
function write(target: Fields, key: string, value: Json): void {
  if (key === '__proto__') Object.defineProperty(target, key, { value, writable: true, enumerable: true, configurable: true });
  else target[key] = value;
}

function valueAt(document: Json, path: readonly string[]): Json | undefined {
  let value: Json | undefined = document;
  for (const key of path) value = isJsonObject(value) && Object.hasOwn(value, key) ? value[key] : undefined;
  return value;
}

/** Drops a change when a later one writes the same place. */
export function condense(changes: readonly Change[]): Change[] {
  // Where one change may lie inside another, their order matters: everything stays.
  if (someNest(changes)) return [...changes];
  const last = new Map(changes.map((change, index) => [JSON.stringify(change.path), index]));
  return changes.filter((change, index) => last.get(JSON.stringify(change.path)) === index);
}

/** Whether a change may write inside of what another one writes. */
function someNest(changes: readonly Change[]): boolean {
  if (changes.length < 2) return false;
  const written = new Set(changes.map(({ path }) => JSON.stringify(path)));
  return changes.some(({ path }) => path.some((_, depth) => depth > 0 && written.has(JSON.stringify(path.slice(0, depth)))));
}
