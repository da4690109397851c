import { DOCUMENT_KINDS, toJsonSchema } from '@brelvin/core';

/** Pieces of the API's description. Messages are checked by their classes; this only tells people about them. */
const text = { type: 'string' } as const;
const whole = { type: 'integer' } as const;

export const idParams = { type: 'object', properties: { id: text }, required: ['id'] } as const;

export const documentBody = { anyOf: Object.values(DOCUMENT_KINDS).map((entry) => toJsonSchema(entry.schema)) };

export const stepBody = {
  type: 'object',
  properties: {
    id: { ...text, description: 'Chosen by the client; saving the same id again changes nothing.' },
    label: text,
    gesture: text,
    changes: {
      type: 'array',
      items: { type: 'object', properties: { path: { type: 'array', items: text }, value: {} }, required: ['path'] },
    },
  },
  required: ['id', 'label', 'changes'],
} as const;

export const appendBody = {
  type: 'object',
  properties: { after: { ...whole, description: 'The last step the client knows.' }, steps: { type: 'array', items: stepBody } },
  required: ['after', 'steps'],
} as const;

export const createBody = { type: 'object', properties: { id: text, document: documentBody }, required: ['id', 'document'] };

export const listQuery = {
  type: 'object',
  properties: { kind: { enum: Object.keys(DOCUMENT_KINDS) }, search: text, offset: whole, limit: whole },
  required: ['kind'],
} as const;
