import { DOCUMENT_KINDS } from '@brelvin/core';

/** Pieces of the API's description. Messages are checked by their classes; this only tells people about them. */
const text = { type: 'string' } as const;
const whole = { type: 'integer' } as const;

export const idParams = { type: 'object', properties: { id: text }, required: ['id'] } as const;

export const listQuery = {
  type: 'object',
  properties: { kind: { enum: Object.keys(DOCUMENT_KINDS) }, search: text, offset: whole, limit: whole },
  required: ['kind'],
} as const;
