import type { Json } from '../json';
import type { Field, Schema } from './schema';

/**
 * The same table as JSON Schema, draft 2020-12.
 *
 * @param named schemas that are described elsewhere, with the reference that stands for each
 */
export function toJsonSchema(schema: Schema, named: ReadonlyMap<Schema, string> = new Map()): { [key: string]: Json } {
  const reference = named.get(schema);
  if (reference !== undefined) return { $ref: reference };
  const inside = (each: Schema): { [key: string]: Json } => toJsonSchema(each, named);
  switch (schema.kind) {
    case 'text':
      return schema.moment
        ? { type: 'string', format: 'date-time' }
        : {
            type: 'string',
            minLength: schema.shortest,
            maxLength: schema.longest,
            ...(schema.pattern ? { pattern: schema.pattern } : {}),
            ...(schema.expected ? { description: schema.expected } : {}),
          };
    case 'number':
      return {
        type: schema.whole ? 'integer' : 'number',
        ...(schema.least === undefined ? {} : { minimum: schema.least }),
        ...(schema.most === undefined ? {} : { maximum: schema.most }),
      };
    case 'boolean':
      return { type: 'boolean' };
    case 'none':
      return { type: 'null' };
    case 'any':
      return schema.described ? { anyOf: schema.described.map(inside) } : {};
    case 'exactly':
      return { enum: [...schema.values] };
    case 'list':
      return { type: 'array', items: inside(schema.of), minItems: schema.shortest, maxItems: schema.longest };
    case 'record':
      return {
        type: 'object',
        propertyNames: { pattern: schema.keys },
        additionalProperties: inside(schema.of),
        maxProperties: schema.longest,
      };
    case 'object': {
      const properties = Object.entries(schema.fields).map(([key, field]): [string, Json] => [
        key,
        propertyOf(field, inside(field.schema)),
      ]);
      const required = Object.entries(schema.fields)
        .filter(([, field]) => !field.optional)
        .map(([key]) => key);
      return { type: 'object', properties: Object.fromEntries(properties), required, additionalProperties: false };
    }
    case 'either':
      return { anyOf: schema.of.map(inside) };
  }
}

function propertyOf({ help, otherwise }: Field, own: { [key: string]: Json }): Json {
  return {
    ...own,
    ...(help ? { description: help } : {}),
    ...(otherwise === undefined ? {} : { default: otherwise as Json }),
  };
}
