import {
  AFTER_QUERY,
  APPEND,
  DOCUMENT_ADDRESS,
  DOCUMENT_QUERY,
  HISTORY_QUERY,
  KIND_QUERY,
  NEW_DOCUMENT,
  NEW_VERSION,
  STEP_ADDRESS,
  type Append,
  type NewVersion,
  type StoredDocument,
} from '@brelvin/contract';
import { readDocument } from '@brelvin/core';
import type { FastifyInstance } from 'fastify';
import { bodyOf, describe } from '../messages/body';
import { readMessage } from '../messages/read-message';
import type { DocumentRepository } from '../store/document-repository';
import { ANSWERS } from './describe';

/** Bytes of a document, or of the steps that are saved at once. */
const LARGEST_SAVE = 8 * 1024 * 1024;

const params = describe(DOCUMENT_ADDRESS);

/** Documents and their steps. */
export async function documentRoutes(app: FastifyInstance, { documents }: { documents: DocumentRepository }): Promise<void> {
  app.get(
    '/documents',
    { schema: { summary: 'List and search, newest change first', querystring: describe(DOCUMENT_QUERY), response: ANSWERS.documents } },
    async (request) => documents.list(await readMessage(DOCUMENT_QUERY, request.query)),
  );

  app.get('/tags', { schema: { summary: 'Tags in use by documents of a kind', response: ANSWERS.tags } }, async (request) => {
    const { kind } = await readMessage(KIND_QUERY, request.query);
    return { tags: await documents.tags(kind) };
  });

  app.get(
    '/documents/:id/history',
    { schema: { summary: 'The last steps, and the state before them', params, response: ANSWERS.history } },
    async (request) => {
      const { id } = await readMessage(DOCUMENT_ADDRESS, request.params);
      const { limit, before } = await readMessage(HISTORY_QUERY, request.query);
      return documents.history(id, limit, before);
    },
  );

  app.get(
    '/documents/:id/users',
    {
      schema: {
        summary: 'Documents that are seen with one: sets in which a field stands, materials last seen in a set',
        params,
        response: ANSWERS.users,
      },
    },
    async (request) => {
      const { id } = await readMessage(DOCUMENT_ADDRESS, request.params);
      return { users: await documents.usersOf([id]) };
    },
  );

  app.get(
    '/documents/:id/at/:step',
    { schema: { summary: 'A document as it was after a step', response: ANSWERS.stored } },
    async (request) => {
      const { id, step } = await readMessage(STEP_ADDRESS, request.params);
      return { id, step, document: await documents.at(id, step) };
    },
  );

  app.get(
    '/documents/:id/versions',
    { schema: { summary: 'Named versions, newest first', params, response: ANSWERS.versions } },
    async (request) => {
      const { id } = await readMessage(DOCUMENT_ADDRESS, request.params);
      return { versions: await documents.versions(id) };
    },
  );

  app.post(
    '/documents/:id/versions',
    { schema: { summary: 'Give a step a name', params, body: bodyOf(NEW_VERSION), response: ANSWERS.named } },
    async (request, reply) => {
      const { id } = await readMessage(DOCUMENT_ADDRESS, request.params);
      const { name, step, beside } = request.body as NewVersion;
      await documents.nameVersion(id, { name, step, beside });
      return reply.status(201).send({ name, step });
    },
  );

  app.post(
    '/documents',
    { bodyLimit: LARGEST_SAVE, schema: { summary: 'Keep a new document', body: bodyOf(NEW_DOCUMENT), response: ANSWERS.created } },
    async (request, reply) => {
      const { id, document } = request.body as Omit<StoredDocument, 'step'>;
      return reply.status(201).send(await documents.create(id, readDocument(document)));
    },
  );

  app.get(
    '/documents/:id',
    { schema: { summary: 'A document as of its last step', params, response: ANSWERS.stored } },
    async (request) => {
      const { id } = await readMessage(DOCUMENT_ADDRESS, request.params);
      return documents.read(id);
    },
  );

  app.get('/documents/:id/steps', { schema: { summary: 'Steps after a given one', params, response: ANSWERS.steps } }, async (request) => {
    const { id } = await readMessage(DOCUMENT_ADDRESS, request.params);
    const { after } = await readMessage(AFTER_QUERY, request.query);
    return { steps: await documents.stepsAfter(id, after) };
  });

  app.post(
    '/documents/:id/steps',
    {
      bodyLimit: LARGEST_SAVE,
      schema: {
        summary: 'Add steps; 409 with the missed ones when others came first',
        params,
        body: bodyOf(APPEND),
        response: ANSWERS.saved,
      },
    },
    async (request) => {
      const { id } = await readMessage(DOCUMENT_ADDRESS, request.params);
      const { after, steps } = request.body as Append;
      return { step: await documents.append(id, after, steps) };
    },
  );

  app.delete(
    '/documents/:id',
    { schema: { summary: 'Delete; can be restored', params, response: ANSWERS.nothing } },
    async (request, reply) => {
      const { id } = await readMessage(DOCUMENT_ADDRESS, request.params);
      await documents.setDeleted(id, true);
      return reply.status(204).send();
    },
  );

  app.post(
    '/documents/:id/restore',
    { schema: { summary: 'Take a deletion back', params, response: ANSWERS.nothing } },
    async (request, reply) => {
      const { id } = await readMessage(DOCUMENT_ADDRESS, request.params);
      await documents.setDeleted(id, false);
      return reply.status(204).send();
    },
  );
}
