import { isJsonObject, type Json, type Change } from '@brelvin/contract';

/** The changes that turn one document into another; lists and plain values are replaced whole. */
export function differenceOf(before: unknown, after: unknown): Change[] {
  const changes: Change[] = [];
  collect(before as Json, after as Json, [], changes);
  return changes;
}

function collect(before: Json, after: Json, path: readonly string[], changes: Change[]): void {
  if (before === after) return;
  if (isJsonObject(before) && isJsonObject(after)) {
    for (const key of Object.keys(before)) if (!Object.hasOwn(after, key)) changes.push({ path: [...path, key] });
    for (const [key, value] of Object.entries(after)) {
      const known = Object.hasOwn(before, key) ? before[key] : undefined;
      if (known === undefined) changes.push({ path: [...path, key], value });
      else collect(known, value, [...path, key], changes);
    }
  } else if (JSON.stringify(before) !== JSON.stringify(after)) changes.push({ path, value: after });
}
