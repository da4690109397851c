/** Which part of a shelf of the Library is asked for, and in which order. */
export interface ListOptions {
  readonly search?: string;
  readonly tag?: string;
  readonly sort?: 'changed' | 'name' | 'made';
  readonly deleted?: boolean;
  /** Of files only. */
  readonly use?: 'image' | 'environment' | 'mesh';
  readonly offset?: number;
  readonly limit?: number;
}

export function listQuery(options: ListOptions, start: Record<string, string> = {}): URLSearchParams {
  const query = new URLSearchParams(start);
  for (const [name, value] of Object.entries(options)) if (value !== undefined && value !== '') query.set(name, String(value));
  return query;
}
