import { readDocument } from '@brelvin/core';
import type { FastifyInstance } from 'fastify';
import {
  AppendMessage,
  CreateMessage,
  DocumentParams,
  HistoryMessage,
  KindMessage,
  ListMessage,
  StepParams,
  StepsAfterMessage,
  VersionMessage,
} from '../messages/documents';
import { bodyOf } from '../messages/describe-body';
import { readMessage } from '../messages/read-message';
import type { DocumentRepository } from '../store/document-repository';
import { ANSWERS, idParams, listQuery } from './describe';

/** Bytes of a document, or of the steps that are saved at once. */
const LARGEST_SAVE = 8 * 1024 * 1024;

/** Documents and their steps. */
export async function documentRoutes(app: FastifyInstance, { documents }: { documents: DocumentRepository }): Promise<void> {
  app.get(
    '/documents',
    { schema: { summary: 'List and search, newest change first', querystring: listQuery, response: ANSWERS.documents } },
    async (request) => documents.list(await readMessage(ListMessage, request.query)),
  );

  app.get('/tags', { schema: { summary: 'Tags in use by documents of a kind', response: ANSWERS.tags } }, async (request) => {
    const { kind } = await readMessage(KindMessage, request.query);
    return { tags: await documents.tags(kind) };
  });

  app.get(
    '/documents/:id/history',
    { schema: { summary: 'The last steps, and the state before them', params: idParams, response: ANSWERS.history } },
    async (request) => {
      const { id } = await readMessage(DocumentParams, request.params);
      const { limit, before } = await readMessage(HistoryMessage, request.query);
      return documents.history(id, limit, before);
    },
  );

  app.get(
    '/documents/:id/at/:step',
    { schema: { summary: 'A document as it was after a step', response: ANSWERS.stored } },
    async (request) => {
      const { id, step } = await readMessage(StepParams, request.params);
      return { id, step, document: await documents.at(id, step) };
    },
  );

  app.get(
    '/documents/:id/versions',
    { schema: { summary: 'Named versions, newest first', params: idParams, response: ANSWERS.versions } },
    async (request) => {
      const { id } = await readMessage(DocumentParams, request.params);
      return { versions: await documents.versions(id) };
    },
  );

  app.post(
    '/documents/:id/versions',
    { schema: { summary: 'Give a step a name', params: idParams, body: bodyOf(VersionMessage), response: ANSWERS.named } },
    async (request, reply) => {
      const { id } = await readMessage(DocumentParams, request.params);
      const { name, step, beside } = request.body as VersionMessage;
      await documents.nameVersion(id, { name, step, beside });
      return reply.status(201).send({ name, step });
    },
  );

  app.post(
    '/documents',
    { bodyLimit: LARGEST_SAVE, schema: { summary: 'Keep a new document', body: bodyOf(CreateMessage), response: ANSWERS.created } },
    async (request, reply) => {
      const { id, document } = request.body as CreateMessage;
      return reply.status(201).send(await documents.create(id, readDocument(document)));
    },
  );

  app.get(
    '/documents/:id',
    { schema: { summary: 'A document as of its last step', params: idParams, response: ANSWERS.stored } },
    async (request) => {
      const { id } = await readMessage(DocumentParams, request.params);
      return documents.read(id);
    },
  );

  app.get(
    '/documents/:id/steps',
    { schema: { summary: 'Steps after a given one', params: idParams, response: ANSWERS.steps } },
    async (request) => {
      const { id } = await readMessage(DocumentParams, request.params);
      const { after } = await readMessage(StepsAfterMessage, request.query);
      return { steps: await documents.stepsAfter(id, after) };
    },
  );

  app.post(
    '/documents/:id/steps',
    {
      bodyLimit: LARGEST_SAVE,
      schema: {
        summary: 'Add steps; 409 with the missed ones when others came first',
        params: idParams,
        body: bodyOf(AppendMessage),
        response: ANSWERS.saved,
      },
    },
    async (request) => {
      const { id } = await readMessage(DocumentParams, request.params);
      const { after, steps } = request.body as AppendMessage;
      return { step: await documents.append(id, after, steps) };
    },
  );

  app.delete(
    '/documents/:id',
    { schema: { summary: 'Delete; can be restored', params: idParams, response: ANSWERS.nothing } },
    async (request, reply) => {
      const { id } = await readMessage(DocumentParams, request.params);
      await documents.setDeleted(id, true);
      return reply.status(204).send();
    },
  );

  app.post(
    '/documents/:id/restore',
    { schema: { summary: 'Take a deletion back', params: idParams, response: ANSWERS.nothing } },
    async (request, reply) => {
      const { id } = await readMessage(DocumentParams, request.params);
      await documents.setDeleted(id, false);
      return reply.status(204).send();
    },
  );
}
