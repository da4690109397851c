import { JOB_ADDRESS, JOB_QUERY, RENDER_WISH, type RenderWish } from '@brelvin/contract';
import type { FastifyInstance } from 'fastify';
import type { JobQueue } from '../jobs/job-queue';
import { bodyOf, describe } from '../messages/body';
import { readMessage } from '../messages/read-message';
import type { DocumentRepository } from '../store/document-repository';
import type { JobRepository } from '../store/job-repository';
import { ANSWERS } from './describe';

export interface JobStores {
  readonly documents: DocumentRepository;
  readonly jobs: JobRepository;
  readonly queue: JobQueue;
}

const params = describe(JOB_ADDRESS);

/** What workers are to make; its progress also comes over the WebSocket. */
export async function jobRoutes(app: FastifyInstance, { documents, jobs, queue }: JobStores): Promise<void> {
  app.addHook('onClose', () => queue.close());

  app.post(
    '/renders',
    {
      schema: {
        summary: 'Have a picture drawn; the job says how far it is, and where the picture is',
        body: bodyOf(RENDER_WISH),
        response: ANSWERS.begun,
      },
    },
    async (request, reply) => {
      const wish = request.body as RenderWish;
      const { document } = await documents.read(wish.document);
      for (const other of [wish.set, wish.rig]) if (other !== undefined) await documents.read(other);
      const job = await jobs.create(document.name, wish);
      await queue.send(job.id);
      return reply.status(202).send(job);
    },
  );

  app.get(
    '/jobs',
    { schema: { summary: 'Jobs, the newest first', querystring: describe(JOB_QUERY), response: ANSWERS.jobs } },
    async (request) => {
      const { limit } = await readMessage(JOB_QUERY, request.query);
      return { jobs: await jobs.list(limit) };
    },
  );

  app.get('/jobs/:id', { schema: { summary: 'How far a job is', params, response: ANSWERS.job } }, async (request) => {
    const { id } = await readMessage(JOB_ADDRESS, request.params);
    return jobs.read(id);
  });

  app.delete(
    '/jobs/:id',
    { schema: { summary: 'Give a job up; one that has ended stays as it is', params, response: ANSWERS.job } },
    async (request) => {
      const { id } = await readMessage(JOB_ADDRESS, request.params);
      return jobs.cancel(id);
    },
  );
}
