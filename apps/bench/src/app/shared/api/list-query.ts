import type { FileQuery } from '@brelvin/contract';

/** Which part of a shelf of the Library is asked for, and in which order. */
export type ListOptions = FileQuery;

export function listQuery(options: ListOptions, start: Record<string, string> = {}): URLSearchParams {
  const query = new URLSearchParams(start);
  const wanted: readonly (readonly [string, string | number | boolean | undefined])[] = Object.entries(options);
  for (const [name, value] of wanted) if (value !== undefined && value !== '') query.set(name, String(value));
  return query;
}
