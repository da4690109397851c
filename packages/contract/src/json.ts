export type Json = null | boolean | number | string | readonly Json[] | { readonly [key: string]: Json };

export function isJsonObject(value: unknown): value is { readonly [key: string]: Json } {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}
