import {
  ALIVE,
  anyDocument,
  ASSET_LIST,
  ASSET_SUMMARY,
  BUDGET,
  DOCUMENT_LIST,
  FAILURE,
  FUNCTION_USERS,
  FUNCTIONS,
  HEALTH,
  HISTORY_PART,
  JOB,
  JOB_LIST,
  MISSING_CHUNKS,
  NAMED,
  SAVED,
  STEPS,
  STORED_DOCUMENT,
  TAGS,
  toJsonSchema,
  VERSIONS,
  type Schema,
} from '@brelvin/contract';
import type { FastifyInstance } from 'fastify';
import plugin from 'fastify-plugin';
import { describe, DOCUMENT_REFERENCE } from '../messages/body';

const failure = describe(FAILURE);

/** Answers of routes, by what they give. */
export const ANSWERS = {
  documents: answers(200, DOCUMENT_LIST),
  stored: answers(200, STORED_DOCUMENT),
  created: answers(201, STORED_DOCUMENT),
  saved: answers(200, SAVED),
  steps: answers(200, STEPS),
  history: answers(200, HISTORY_PART),
  versions: answers(200, VERSIONS),
  named: answers(201, NAMED),
  tags: answers(200, TAGS),
  functions: answers(200, FUNCTIONS),
  users: answers(200, FUNCTION_USERS),
  assets: answers(200, ASSET_LIST),
  asset: answers(200, ASSET_SUMMARY),
  missing: answers(200, MISSING_CHUNKS),
  budget: answers(200, BUDGET),
  job: answers(200, JOB),
  begun: answers(202, JOB),
  jobs: answers(200, JOB_LIST),
  nothing: { 204: { type: 'null' }, ...failures() },
  alive: answers(200, ALIVE),
  // A server that cannot serve says so with the same numbers.
  health: { ...answers(200, HEALTH), 503: describe(HEALTH) } as Record<string, object>,
};

/** Makes known what documents are, for descriptions that name it. Answers are written as they are: specs check them. */
export const described = plugin(async (app: FastifyInstance) => {
  app.addSchema({ $id: DOCUMENT_REFERENCE, ...toJsonSchema(anyDocument) });
  app.setSerializerCompiler(() => (answer) => JSON.stringify(answer));
});

function answers(status: number, schema: Schema): Record<string, object> {
  return { [status]: describe(schema), ...failures() };
}

function failures(): Record<string, object> {
  return { '4xx': failure, '5xx': failure };
}
