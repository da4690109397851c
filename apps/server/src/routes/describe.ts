import { DOCUMENT_KINDS, toJsonSchema } from '@brelvin/core';
import type { FastifyInstance } from 'fastify';
import plugin from 'fastify-plugin';

/** Pieces of the API's description: addresses, queries and answers. Bodies are described by their message classes. */
const text = { type: 'string' } as const;
const whole = { type: 'integer' } as const;
const time = { type: 'string', format: 'date-time' } as const;
const kind = { enum: Object.keys(DOCUMENT_KINDS) };
const anyDocument = { $ref: 'Document#' } as const;
const texts = list(text);

export const idParams = { type: 'object', properties: { id: text }, required: ['id'] } as const;
export const sha256Params = { type: 'object', properties: { sha256: text }, required: ['sha256'] } as const;

const shelfQuery = {
  search: text,
  tag: text,
  sort: { enum: ['changed', 'name', 'made'] },
  deleted: { type: 'boolean' },
  offset: whole,
  limit: whole,
};
export const listQuery = { type: 'object', properties: { kind, ...shelfQuery }, required: ['kind'] } as const;
export const assetQuery = { type: 'object', properties: { use: { enum: ['image', 'environment', 'mesh'] }, ...shelfQuery } } as const;

const step = object(
  {
    step: whole,
    id: text,
    label: text,
    gesture: text,
    direction: { enum: ['undo', 'redo'] },
    changes: list(object({ path: texts, value: {} }, ['value'])),
    at: time,
  },
  ['gesture', 'direction'],
);
const steps = list(step);
const documentStep = object({ id: text, step: whole });
const asset = object({
  sha256: text,
  name: text,
  type: text,
  size: { ...whole, description: 'bytes' },
  width: whole,
  height: whole,
  tags: texts,
  updatedAt: time,
});

/** What every failure is answered by. */
const failure = {
  type: 'object',
  properties: {
    error: { ...text, description: 'for programs' },
    message: { ...text, description: 'for people' },
    fields: list(object({ field: text, message: text })),
    problems: list(object({ place: text, message: text })),
    step: { ...whole, description: 'of a stale save: the last step' },
    missed: steps,
    name: text,
  },
  required: ['error', 'message'],
} as const;

/** Answers of routes, by what they give. */
export const ANSWERS = {
  documents: answers(200, object({ documents: list(documentSummary()), total: whole })),
  stored: answers(200, object({ id: text, step: whole, document: anyDocument })),
  created: answers(201, object({ id: text, step: whole, document: anyDocument })),
  saved: answers(200, object({ step: whole })),
  steps: answers(200, object({ steps })),
  history: answers(200, object({ base: anyDocument, baseStep: whole, steps })),
  versions: answers(200, object({ versions: list(object({ name: text, step: whole, at: time, beside: list(documentStep) }, ['beside'])) })),
  named: answers(201, object({ name: text, step: whole })),
  tags: answers(200, object({ tags: list(object({ tag: text, count: whole })) })),
  functions: answers(200, object({ functions: list(object({ id: text, step: whole, name: text, text, formerNames: texts })) })),
  users: answers(200, object({ users: list(object({ id: text, kind, name: text })) })),
  assets: answers(200, object({ assets: list(asset), total: whole })),
  asset: answers(200, asset),
  missing: answers(200, object({ missing: { ...list(whole), description: 'numbers of the chunks to send' } })),
  nothing: answers(204, { type: 'null' }),
  alive: answers(200, object({ ok: { type: 'boolean' } })),
  health: answers(
    200,
    object({
      ok: { type: 'boolean' },
      database: object({ milliseconds: whole, bytes: whole }),
      connections: object({ open: whole, idle: whole, waiting: whole }),
      files: object({ checked: whole, waiting: whole }),
      disk: { anyOf: [object({ free: whole, size: whole }), { type: 'null' }] },
      memory: object({ bytes: whole }),
      seconds: whole,
    }),
  ),
} as const;

/** Makes known what documents are, for answers that name it. Answers are written as they are: their description is checked by specs. */
export const described = plugin(async (app: FastifyInstance) => {
  app.addSchema({ $id: 'Document', anyOf: Object.values(DOCUMENT_KINDS).map((entry) => toJsonSchema(entry.schema)) });
  app.setSerializerCompiler(() => (answer) => JSON.stringify(answer));
});

function documentSummary(): object {
  return object({ id: text, kind, name: text, tags: texts, step: whole, updatedAt: time, pictured: { type: ['integer', 'null'] } });
}

function answers(status: number, schema: object): Record<string, object> {
  return { [status]: schema, '4xx': failure, '5xx': failure };
}

function list(items: object): { readonly type: 'array'; readonly items: object } {
  return { type: 'array', items };
}

function object(properties: Readonly<Record<string, object>>, optional: readonly string[] = []): object {
  const required = Object.keys(properties).filter((name) => !optional.includes(name));
  return { type: 'object', properties, required, additionalProperties: false };
}
