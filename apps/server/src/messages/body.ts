import { anyDocument, toJsonSchema, validate, type Json, type Schema } from '@brelvin/contract';
import type { FieldProblem } from './bad-message';

/** Where the API's description has its documents once. */
export const DOCUMENT_REFERENCE = 'Document';
const NAMED: ReadonlyMap<Schema, string> = new Map([[anyDocument, `${DOCUMENT_REFERENCE}#`]]);

const schemas = new WeakMap<object, Schema>();

/** The description of a schema in the API's, with what stands there once named. */
export function describe(schema: Schema): { [key: string]: Json } {
  return toJsonSchema(schema, NAMED);
}

/** The description of a body, which is checked by its schema. */
export function bodyOf(schema: Schema): object {
  const description = describe(schema);
  schemas.set(description, schema);
  return description;
}

/**
 * What a body of a route is checked by.
 *
 * @param description as `bodyOf` gave it to the route
 */
export function checkOfBody(description: object): (body: unknown) => FieldProblem[] {
  const schema = schemas.get(description);
  if (!schema) throw new Error('Every body is described by a schema of the contract.');
  return (body) => {
    if (typeof body !== 'object' || body === null || Array.isArray(body)) return [{ field: 'body', message: 'must be a JSON object' }];
    return validate(schema, body).map(({ place, message }) => ({ field: place || 'body', message }));
  };
}
