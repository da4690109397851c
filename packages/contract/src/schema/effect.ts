import type { Effect, Field, Schema } from './schema';

/**
 * What a change at a path can ask for. On the way down, the first field that says more than `structure` decides: what lies
 * inside of it asks for no more. A field of values is `structure` as a whole: one that comes or goes may take the place of
 * one from the surface.
 *
 * @param path keys from what the schema describes
 */
export function effectAt(schema: Schema, path: readonly string[]): Effect {
  let at: Schema | undefined = schema;
  for (const [depth, key] of path.entries()) {
    if (at?.kind === 'record') at = at.of;
    else if (at?.kind === 'object') {
      const field: Field | undefined = at.fields[key];
      if (!field) return 'structure';
      if (field.effect === 'none') return 'none';
      if (field.effect === 'value') return field.schema.kind === 'record' && depth === path.length - 1 ? 'structure' : 'value';
      at = field.schema;
    } else return 'structure';
  }
  return 'structure';
}

/** Names of an object's fields that have an effect, by themselves. */
export function fieldsOf(schema: Schema, effect: Effect): string[] {
  if (schema.kind !== 'object') return [];
  return Object.entries(schema.fields)
    .filter(([, field]) => field.effect === effect)
    .map(([name]) => name);
}
