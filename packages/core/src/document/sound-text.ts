import type { Json, Change } from '@brelvin/contract';

/** NUL, which databases keep in no text, and halves of surrogate pairs, which are no characters and which UTF-8 does not have. */
const UNSOUND = /[\0\p{Surrogate}]/u;
const EVERY_UNSOUND = new RegExp(UNSOUND.source, 'gu');

/** Whether a text can be kept and sent as it is. */
export function isSoundText(text: string): boolean {
  return !UNSOUND.test(text);
}

/** The text without what cannot be kept. */
export function soundText(text: string): string {
  return isSoundText(text) ? text : text.replace(EVERY_UNSOUND, '');
}

/** The changes with sound texts and names of fields; the same ones where nothing had to go. */
export function soundChanges(changes: readonly Change[]): readonly Change[] {
  const sound = changes.map(({ path, value }): Change => (value === undefined ? { path } : { path, value: soundJson(value) }));
  return changes.some((each, index) => each.value !== sound[index]?.value) ? sound : changes;
}

/** A value with sound texts; the same one where nothing had to go. */
export function soundJson(value: Json): Json {
  if (typeof value === 'string') return soundText(value);
  if (typeof value !== 'object' || value === null) return value;
  if (Array.isArray(value)) {
    const list: readonly Json[] = value;
    const sound = list.map(soundJson);
    return sound.some((each, index) => each !== list[index]) ? sound : list;
  }
  const fields = Object.entries(value as { readonly [key: string]: Json });
  const sound = fields.map(([key, each]) => [soundText(key), soundJson(each)] as const);
  const same = sound.every(([key, each], index) => key === fields[index]?.[0] && each === fields[index][1]);
  return same ? value : Object.fromEntries(sound);
}
