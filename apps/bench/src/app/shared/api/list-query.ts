import type { FileQuery } from '@brelvin/contract';

/** Which part of a shelf of the Library is asked for, and in which order. */
export type ListOptions = FileQuery;

export function listQuery(options: ListOptions, start: Record<string, string> = {}): URLSearchParams {
  const query = new URLSearchParams(start);
  for (const [name, value] of Object.entries(options)) if (value !== undefined && value !== '') query.set(name, String(value));
  return query;
}
