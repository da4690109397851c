import { FUNCTION_ADDRESS } from '@brelvin/contract';
import type { FastifyInstance } from 'fastify';
import { readMessage } from '../messages/read-message';
import type { DocumentRepository } from '../store/document-repository';
import { ANSWERS } from './describe';

/** Functions of the Library, and what uses them. */
export async function functionRoutes(app: FastifyInstance, { documents }: { documents: DocumentRepository }): Promise<void> {
  app.get(
    '/functions',
    { schema: { summary: 'All functions of the Library with their texts', response: ANSWERS.functions } },
    async () => ({
      functions: await documents.functions(),
    }),
  );

  app.get(
    '/functions/:name/users',
    { schema: { summary: 'Materials and functions that ask for a function', response: ANSWERS.users } },
    async (request) => {
      const { name } = await readMessage(FUNCTION_ADDRESS, request.params);
      const found = (await documents.functions()).find((each) => each.name === name);
      return { users: await documents.usersOf([name, ...(found?.formerNames ?? [])]) };
    },
  );
}
